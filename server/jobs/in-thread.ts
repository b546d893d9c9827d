import { Worker } from 'node:worker_threads'
import { workerFile } from './worker-file'

/** Why a thread came to nothing by itself: it took too long, it took too much memory, or it ended before it was done. */
export type ThreadTrouble = 'too long' | 'too much memory' | 'ended'
export class ThreadFailed extends Error {
  constructor(
    readonly why: ThreadTrouble,
    options?: ErrorOptions,
  ) {
    super(`a thread came to nothing: ${why}`, options)
  }
}
const isOutOfMemory = (error: unknown): boolean =>
  error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY'

/** Work that goes on in a thread of its own. */
export interface Thread<T> {
  /** What came of it. @throws ThreadFailed, or what the thread itself failed with */
  readonly ended: Promise<T>
  /** Tells the thread something; ends it from here. */
  readonly tell: (message: unknown) => void
  readonly end: (came: T) => void
}
export interface ThreadAsked<M, T> {
  /** What the thread works on (`worker.ts` knows what to do by it). */
  readonly data: object
  readonly megabytes?: number
  /** How long it may take; none: as long as it likes. */
  readonly seconds?: number
  /** Hears what the thread says; `end` says what came of it. */
  readonly hear: (message: M, end: (came: T) => void) => void
}
/** The one way in which this process begins a thread: it is ended, and its clock stopped, whatever happens. */
export function startThread<M, T>({ data, megabytes, seconds, hear }: ThreadAsked<M, T>): Thread<T> {
  const worker = new Worker(workerFile(), {
    workerData: data,
    ...(megabytes !== undefined && {
      resourceLimits: { maxOldGenerationSizeMb: megabytes, maxYoungGenerationSizeMb: 32 },
    }),
  })
  let end: (came: T) => void = () => {}
  let clock: ReturnType<typeof setTimeout> | undefined
  const ended = new Promise<T>((resolve, reject) => {
    end = resolve
    worker.on('message', (message: M) => hear(message, resolve))
    worker.once('error', error =>
      reject(isOutOfMemory(error) ? new ThreadFailed('too much memory', { cause: error }) : error),
    )
    worker.once('exit', () => reject(new ThreadFailed('ended')))
    if (seconds !== undefined)
      clock = setTimeout(() => reject(new ThreadFailed('too long')), seconds * 1000).unref()
  }).finally(() => {
    clearTimeout(clock)
    return worker.terminate()
  })
  return { ended, tell: message => worker.postMessage(message), end }
}
