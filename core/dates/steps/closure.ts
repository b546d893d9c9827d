import { isoOf, weekdayOf, type Day } from '../../calendar/day'
import { isUsable, weekFirst, type Term } from '../../calendar/term'
import { bit, turned } from '../draft'
import type { ClosurePolicy } from '../rule'
import { bounds } from './bounds'
import { move, type SlotStep } from './step'

const horizon = 800

/** The usable day nearest to `day` on one side (direction 1 or −1), within the horizon. */
function usableOn(term: Term, day: Day, direction: 1 | -1): Day | null {
  for (let distance = 1; distance <= horizon; distance++)
    if (isUsable(term, day + direction * distance)) return day + direction * distance
  return null
}

function usableDay(term: Term, day: Day, policy: Exclude<ClosurePolicy, 'keep'>): Day | null {
  const next = usableOn(term, day, 1)
  const previous = usableOn(term, day, -1)
  if (policy === 'previous') return previous ?? next
  if (policy === 'nearest' && next !== null && previous !== null)
    return day - previous < next - day ? previous : next
  return next ?? previous
}

/** A date in a closure goes to the day that runs its weekday's timetable, else by its slot's policy; then the bounds hold again. */
export const closure: SlotStep = (draft, rule, crossing) => {
  const { target } = crossing
  const closed = target.closureOn(draft.day)
  if (closed) {
    const weekday = rule.method === 'span' ? weekdayOf(draft.day) : turned(rule, draft.weekday)
    const first = weekFirst(target.weekStart, draft.day)
    const swap = target.runsAs.find(
      entry =>
        entry.date >= first &&
        entry.date < first + 7 &&
        entry.weekday === weekday &&
        isUsable(target, entry.date),
    )
    const policy = rule.closures[draft.slot]
    const names = { closure: closed.name, from: isoOf(closed.from), to: isoOf(closed.to) }
    if (swap) move(draft, swap.date, 'swap-day', 'swap-day', { ...names, weekday, day: swap.name })
    else {
      const day = policy === 'keep' ? null : usableDay(target, draft.day, policy)
      if (day !== null) move(draft, day, 'closure-moved', 'closure-moved', { ...names, policy })
      else {
        draft.flags |= bit['on-closure']
        draft.reasons.push({
          slot: draft.slot,
          code: 'on-closure',
          before: isoOf(draft.day),
          after: isoOf(draft.day),
          names: { ...names, policy },
        })
      }
    }
  }
  bounds(draft, rule, crossing)
}
