import { Worker } from 'node:worker_threads'
import { workerFile } from '../jobs/worker-file'
import type { Readable, ReadableForm } from './readable-body'

/** What a thread is given to make ready to be shown. */
export interface ReadableTask {
  bytes: Uint8Array
  form: ReadableForm
}
const secondsAtMost = 30
/** What is under way, by hash and form: whoever asks for the same waits for the same. */
const underWay = new Map<string, Promise<Readable>>()
/** One after another: a long page takes a core for seconds. */
let last: Promise<unknown> = Promise.resolve()

/** Makes a long body ready to be shown in a thread of its own, so that nobody else waits. @throws where it takes too long or fails */
export function makeInThread(hash: string, bytes: Uint8Array, form: ReadableForm): Promise<Readable> {
  const key = `${hash} ${form}`
  const there = underWay.get(key)
  if (there) return there
  const made = last.then(() => inThread({ bytes, form }))
  last = made.catch(() => {})
  underWay.set(key, made)
  void last.then(() => underWay.delete(key))
  return made
}
function inThread(task: ReadableTask): Promise<Readable> {
  const worker = new Worker(workerFile(), {
    workerData: { readable: task },
    resourceLimits: { maxOldGenerationSizeMb: 256, maxYoungGenerationSizeMb: 32 },
  })
  const made = new Promise<Readable>((resolve, reject) => {
    worker.once('message', resolve)
    worker.once('error', reject)
    worker.once('exit', () => reject(new Error('the thread ended before it was done')))
    setTimeout(
      () => reject(new Error(`it took longer than ${secondsAtMost} seconds`)),
      secondsAtMost * 1000,
    ).unref()
  })
  return made.finally(() => worker.terminate())
}
