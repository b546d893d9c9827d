import { compileTerm } from '~~/core/calendar/term'
import { compareMethods } from '~~/core/dates/fit'
import { ledgerInputs, planLedger, type CompileInput } from '~~/core/plan/compile'
import { mergeSources, type MergedSources } from '~~/core/plan/sources'
import { packItems } from './packing'
import type { DatesAnswer, ToDatesWorker } from './messages'

/**
 * Answers the messages of a page about one plan at a time: first the dates, then how the methods compare. The worker uses it,
 * and the page itself where no worker starts.
 */
export function datesComputer(answer: (answer: DatesAnswer) => void): (message: ToDatesWorker) => void {
  let pair: Omit<CompileInput, 'document'> | null = null
  let merged: MergedSources | undefined
  return message => {
    if (message.type === 'pair') {
      const [source, ...more] = message.sources.map(side => ({ ...side, term: compileTerm(side.calendar) }))
      pair = {
        source: source!,
        more,
        target: { ...message.target, term: compileTerm(message.target.calendar) },
        zone: message.zone,
      }
      merged = mergeSources([source!, ...more])
      return
    }
    if (!pair) return
    const { round } = message
    const input = { ...pair, document: message.document }
    const { items, summary } = planLedger(input, merged)
    answer({ type: 'ledger', round, summary, items: packItems(items) })
    // Each source has a calendar of its own; what a method leaves to settle is that of all together, and the first one's best is suggested.
    const comparisons = ledgerInputs(input, merged).map(each =>
      compareMethods(each, ['keep-week', 'offset', 'none']),
    )
    const settles: Record<string, number> = {}
    for (const { fits } of comparisons)
      for (const fit of fits) settles[fit.key] = (settles[fit.key] ?? 0) + fit.summary.settle
    answer({ type: 'comparison', round, comparison: { settles, suggested: comparisons[0]!.suggested } })
  }
}
