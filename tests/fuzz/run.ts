import { fileURLToPath } from 'node:url'
import { Worker } from 'node:worker_threads'
import { bundle } from '../../scripts/build-worker'
import type { Target } from './inputs'

/** What a file did that none may do. */
export interface Found {
  index: number
  target: Target
  problem: string
  input: { html: string } | { name: string; bytes: string } | null
}
export interface FuzzResult {
  tried: number
  counts: Record<string, number>
  slowest: { index: number; target: string; took: number }
  found: Found[]
}
export interface FuzzOptions {
  seed: number
  inputs: number
  threads?: number
  only?: Target | null
  seconds?: number
  progress?: (tried: number) => void
}

type Message =
  | { type: 'begin'; index: number; target: Target }
  | { type: 'end'; index: number; target: Target; outcome: string; took: number }
  | ({ type: 'found' } & Found)
  | { type: 'done' }
/** An input that takes longer than this hangs. */
const patience = 10_000

/** Tries so many inputs, or as many as there is time for. One that hangs or kills its thread is found too; the others go on. */
export async function fuzz({
  seed,
  inputs,
  threads = 1,
  only = null,
  seconds = Infinity,
  progress = () => {},
}: FuzzOptions): Promise<FuzzResult> {
  const file = fileURLToPath(new URL('../../node_modules/.cache/northtide/fuzz.mjs', import.meta.url))
  await bundle('tests/fuzz/worker.ts', file)
  const result: FuzzResult = { tried: 0, counts: {}, slowest: { index: -1, target: '', took: 0 }, found: [] }
  const end = Date.now() + seconds * 1000
  const thread = async (first: number): Promise<void> => {
    for (let from = first; from < inputs && Date.now() < end && result.found.length < 200;)
      from = await batch(from)
  }
  /** Runs a thread until it is done, hangs or dies; gives back where to go on. */
  const batch = (from: number): Promise<number> =>
    new Promise((resolve, reject) => {
      const worker = new Worker(file, {
        workerData: { seed, from, to: inputs, step: threads, only },
        resourceLimits: { maxOldGenerationSizeMb: 512 },
      })
      let at: { index: number; target: Target } | null = null
      let since = Date.now()
      let over = false
      const stop = (next: number): void => {
        if (!over) {
          over = true
          clearInterval(watch)
          void worker.terminate()
          resolve(next)
        }
      }
      const lost = (problem: string): void => {
        if (!at) {
          reject(new Error(`the fuzzing itself does not work: ${problem}`))
          stop(inputs)
        }
        if (!over)
          result.found.push({
            index: at?.index ?? from,
            target: at?.target ?? only ?? 'zip',
            problem,
            input: null,
          })
        stop((at?.index ?? from) + threads)
      }
      const watch = setInterval(() => {
        if (at && Date.now() - since > patience) lost(`hang: over ${patience / 1000} s`)
        else if (Date.now() > end) stop(inputs)
      }, 200)
      worker.on('message', (message: Message) => {
        if (over) return
        since = Date.now()
        if (message.type === 'begin') at = { index: message.index, target: message.target }
        else if (message.type === 'end') {
          result.tried++
          const kind = `${message.target} ${message.outcome}`
          result.counts[kind] = (result.counts[kind] ?? 0) + 1
          if (message.took > result.slowest.took)
            result.slowest = { index: message.index, target: message.target, took: message.took }
          if (result.tried % 1000 === 0) progress(result.tried)
        } else if (message.type === 'found')
          result.found.push({
            index: message.index,
            target: message.target,
            problem: message.problem,
            input: message.input,
          })
        else stop(inputs)
      })
      worker.on('error', error => lost(`crash: ${error.message}`))
      worker.on('exit', () => lost('crash: the thread ended'))
    })
  await Promise.all(Array.from({ length: threads }, (_, first) => thread(first)))
  return result
}
