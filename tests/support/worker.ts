import { fileURLToPath } from 'node:url'
import { buildWorker } from '../../scripts/build-worker'

/** Makes the bundle of the threads, where the packages that it wants are found, and says where it lies. */
export async function useWorker(): Promise<void> {
  process.env.NORTHTIDE_WORKER = fileURLToPath(
    new URL('../../node_modules/.cache/northtide/worker.mjs', import.meta.url),
  )
  await buildWorker(process.env.NORTHTIDE_WORKER)
}
