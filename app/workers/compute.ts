import { compileTerm } from '~~/core/calendar/term'
import { compareMethods } from '~~/core/dates/fit'
import { planDates } from '~~/core/dates/plan'
import { ledgerInput } from '~~/core/plan/compile'
import { packItems } from './packing'
import type { DatesAnswer, ToDatesWorker } from './messages'

/**
 * Answers the messages of a page about one plan at a time: first the dates, then how the methods compare. The worker uses it,
 * and the page itself where no worker starts.
 */
export function datesComputer(answer: (answer: DatesAnswer) => void): (message: ToDatesWorker) => void {
  let pair: Omit<Parameters<typeof ledgerInput>[0], 'document'> | null = null
  return (message) => {
    if (message.type === 'pair') {
      const { source, target, zone } = message
      pair = { source: { ...source, term: compileTerm(source.calendar) }, target: { ...target, term: compileTerm(target.calendar) }, zone }
      return
    }
    if (!pair) return
    const { round } = message
    const input = ledgerInput({ ...pair, document: message.document })
    const { items, summary } = planDates(input)
    answer({ type: 'ledger', round, summary, items: packItems(items) })
    const { fits, suggested } = compareMethods(input, ['keep-week', 'offset', 'none'])
    answer({ type: 'comparison', round, comparison: { settles: Object.fromEntries(fits.map(fit => [fit.key, fit.summary.settle])), suggested } })
  }
}
