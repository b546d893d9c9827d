import { fileURLToPath } from 'node:url'
import { buildWorker } from '../../scripts/build-worker'
import { useServer } from '../support/database'

/** One MariaDB server for all integration tests, each file with a database of its own on it; and the thread that reads files. */
export default async function setup(): Promise<() => void> {
  process.env.NORTHTIDE_WORKER = fileURLToPath(
    new URL('../../node_modules/.cache/northtide/worker.mjs', import.meta.url),
  )
  await buildWorker(process.env.NORTHTIDE_WORKER)
  return useServer()
}
