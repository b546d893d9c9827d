import { dayOf } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import type { Term } from '../calendar/term'
import { withRuleAt } from './levels'
import type { DatedItem } from './plan'
import { methodOf, ruleFor, type RuleSet } from './rule'

/** Work of one kind that was due just when the old section's class began. */
export interface DueAtStart {
  readonly kind: string
  readonly items: readonly string[]
  /** All work of the kind that was due at all. */
  readonly isWhole: boolean
}
interface Old {
  readonly source: Pick<Term, 'timetableWeekday'>
  readonly sourceMeetings: readonly Meeting[]
  readonly items: readonly DatedItem[]
}
const startsOf = (meetings: readonly Meeting[]): string =>
  [...new Set(meetings.map(({ start }) => start))].sort().join(', ')
/** Whether a section begins its classes at other hours than the old one did; not where one of both has no meetings. */
export const hoursDiffer = (old: readonly Meeting[], now: readonly Meeting[]): boolean =>
  old.length > 0 && now.length > 0 && startsOf(old) !== startsOf(now)

/**
 * Work that was due just when class began, by kind, as long as the rule that decides for it keeps times of day: in a section that meets at
 * another hour it would be due in the middle of the morning. (Common practice: homework is due at the start of class.)
 */
export function dueAtClassStart({ source, sourceMeetings, items }: Old, rules: RuleSet): DueAtStart[] {
  const starts = new Set(sourceMeetings.map(({ weekday, start }) => `${weekday} ${start}`))
  const isAtStart = ({ due }: DatedItem): boolean =>
    due !== null && starts.has(`${source.timetableWeekday(dayOf(due))} ${due.slice(11)}`)
  const keepsTime = (item: DatedItem): boolean => {
    const rule = ruleFor(rules, item)
    const method = methodOf(rule)
    return 'prepare' in method && !method.waits && rule.times.due === 'keep'
  }
  const kinds = [...new Set(items.map(({ kind }) => kind))]
  return kinds.flatMap(kind => {
    const due = items.filter(item => item.kind === kind && item.due !== null)
    const found = due.filter(item => isAtStart(item) && keepsTime(item))
    return found.length > 0
      ? [{ kind, items: found.map(({ id }) => id), isWhole: found.length === due.length }]
      : []
  })
}
/** The rules by which such work is due when class begins, wherever and whenever it meets: a rule for the kind where all of it was, else for just these items. */
export function withClassStart<R extends RuleSet>(
  rules: R,
  found: readonly DueAtStart[],
  items: readonly DatedItem[],
): R {
  const byId = new Map(items.map(item => [item.id, item]))
  return found.reduce((now, { kind, items: ids, isWhole }) => {
    const [first] = ids.flatMap(id => byId.get(id) ?? [])
    if (!first) return now
    // Rules of single units or items stand before one for a kind: then it is said of the items.
    const isPlain = ids.every(id => ruleFor(now, byId.get(id) ?? first) === ruleFor(now, first))
    if (isWhole && isPlain) {
      const rule = ruleFor(now, first)
      const next = withRuleAt(
        now,
        { level: 'kind', key: kind },
        { ...rule, times: { ...rule.times, due: 'class-start' } },
      )
      if (ids.every(id => ruleFor(next, byId.get(id) ?? first).times.due === 'class-start')) return next
    }
    return ids.reduce((each, id) => {
      const rule = ruleFor(each, byId.get(id) ?? first)
      return withRuleAt(
        each,
        { level: 'items', keys: [id] },
        { ...rule, times: { ...rule.times, due: 'class-start' } },
      )
    }, now)
  }, rules)
}
