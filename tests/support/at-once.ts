import { Refusal } from '../../server/errors/refusal'

/** What came of a service that was asked many times at once. */
export interface AtOnce<T> {
  done: T[]
  /** Codes of the refusals, each once. */
  refused: string[]
}
/**
 * Asks a service twenty times at once (or as often as is said). Whoever comes second may be refused; a fault is thrown.
 * `work` is given the number of the call.
 */
export async function atOnce<T>(work: (at: number) => Promise<T>, times = 20): Promise<AtOnce<T>> {
  const ends = await Promise.allSettled(Array.from({ length: times }, (_, at) => work(at)))
  const done: T[] = []
  const refused = new Set<string>()
  for (const end of ends) {
    if (end.status === 'fulfilled') done.push(end.value)
    else if (end.reason instanceof Refusal) refused.add(end.reason.code)
    else throw end.reason
  }
  return { done, refused: [...refused] }
}
