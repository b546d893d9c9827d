import { startThread } from '../../jobs/in-thread'
import type { Shown, ShownForm } from './body'

/** What a thread is given to make ready to be shown. */
export interface ShownTask {
  bytes: Uint8Array
  form: ShownForm
}
const secondsAtMost = 30
/** What is under way, by hash and form: whoever asks for the same waits for the same. */
const underWay = new Map<string, Promise<Shown>>()
/** One after another: a long page takes a core for seconds. */
let last: Promise<unknown> = Promise.resolve()

/** Makes a long body ready to be shown in a thread of its own, so that nobody else waits. @throws where it takes too long or fails */
export function makeInThread(hash: string, bytes: Uint8Array, form: ShownForm): Promise<Shown> {
  const key = `${hash} ${form}`
  const there = underWay.get(key)
  if (there) return there
  const task: ShownTask = { bytes, form }
  const made = last.then(
    () =>
      startThread<Shown, Shown>({
        data: { shown: task },
        megabytes: 256,
        seconds: secondsAtMost,
        hear: (shown, end) => end(shown),
      }).ended,
  )
  last = made.catch(() => {})
  underWay.set(key, made)
  void last.then(() => underWay.delete(key))
  return made
}
