import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'

/** Where the bundle of `worker.ts` lies: beside the application, unless NORTHTIDE_WORKER says otherwise. @throws where it is not there */
export function workerFile(): string {
  const file = process.env.NORTHTIDE_WORKER ?? join(dirname(process.argv[1] ?? '.'), 'worker.mjs')
  if (!existsSync(file)) throw new Error(`the worker ${file} is not there; npm run build makes it`)
  return file
}
