import { compareMethods, offeredMethods, rankOf } from '../dates/fit'
import { methodOf, type AnyMethod, type MethodName } from '../dates/rule'
import { ledgerInputs, type CompileInput } from './ledger'

/** A method that leaves far fewer dates to settle than the one in force. */
export interface BetterWay {
  readonly method: MethodName
  readonly settles: number
  /** What is in force, and how many dates it leaves. */
  readonly instead: { readonly method: MethodName; readonly settles: number }
}
const names = offeredMethods.map(({ name }) => name)
/** How many dates fewer another way must leave, and which part at most, before it takes the place of what people expect. (Common practice, no source.) */
const atLeastFewer = 10
const atMostPart = 0.5

/**
 * The better way to move the dates of a whole plan, among the methods that can be suggested for all its sources: the fewest to settle, then the
 * rank that suits the terms. Null where the rule of the course is as good, or nearly so; or where it leaves the dates alone on purpose.
 */
export function betterWay(input: CompileInput): BetterWay | null {
  const now = methodOf(input.document.dates.rule)
  const inputs = ledgerInputs(input)
  const rankIn = (method: AnyMethod): number | null => {
    const ranks = inputs.map(each => rankOf(method, each))
    return ranks.includes(null) ? null : (ranks[0] ?? null)
  }
  if (rankIn(now) === null) return null
  const settles = new Map<MethodName, number>()
  for (const each of inputs) {
    const { fits, because } = compareMethods(each, names)
    // Somebody has dated the course for the new term already: no way of moving dates is better than leaving them.
    if (because === 'already-dated') return null
    for (const { method, summary } of fits) settles.set(method, (settles.get(method) ?? 0) + summary.settle)
  }
  const [best] = offeredMethods
    .flatMap(method => {
      const [count, rank] = [settles.get(method.name), rankIn(method)]
      return count === undefined || rank === null ? [] : [{ method: method.name, count, rank }]
    })
    .sort((a, b) => a.count - b.count || a.rank - b.rank)
  const count = settles.get(now.name) ?? 0
  if (!best || best.method === now.name) return null
  if (count - best.count < atLeastFewer || best.count >= count * atMostPart) return null
  return { method: best.method, settles: best.count, instead: { method: now.name, settles: count } }
}
