import { floorMod, isoOf, roundDiv, weekdayOf, type Day } from '../../calendar/day'
import { lastAtOrBefore } from '../../calendar/term'
import { turned, type Prepare } from '../draft'
import type { RuleOf } from '../rule'
import { placeOutsideClasses } from '../zones'

/** Where a date lies among ordered days: index of the last one at or before it (0 if none) and the days past it. */
export function indexAmong(days: readonly Day[], day: Day): { index: number; residual: number } {
  const index = Math.max(0, lastAtOrBefore(days, day))
  return { index, residual: day - days[index]! }
}

/** The index-th of ordered days plus a residual that, if positive, never reaches the next of them. */
export function dayAmong(days: readonly Day[], index: number, residual: number): Day {
  const day = days[index]!
  const next = days[index + 1]
  return day + (residual > 0 && next !== undefined ? Math.min(residual, next - day - 1) : residual)
}

/** Index i of n source days as a share of m target days. */
export const share = (index: number, sourceCount: number, targetCount: number): number =>
  sourceCount === 1 ? 0 : roundDiv(index * (targetCount - 1), sourceCount - 1)

/** The term's length is stretched or shrunk: by calendar days between the ends of classes, or by class days. */
export const stretch: Prepare<RuleOf<'stretch'>> = (rule, crossing) => {
  const { source, target } = crossing
  const sourceLength = source.classes.to - source.classes.from
  const targetLength = target.classes.to - target.classes.from
  return draft => {
    if (placeOutsideClasses(crossing, draft)) return
    const before = isoOf(draft.from)
    if (rule.basis === 'teaching') {
      const { index, residual } = indexAmong(source.classDays, draft.from)
      const landing = share(index, source.classDays.length, target.classDays.length)
      draft.day = dayAmong(target.classDays, landing, residual)
      draft.reasons.push({
        slot: draft.slot,
        code: 'stretch-teaching',
        before,
        after: isoOf(draft.day),
        names: {
          index: index + 1,
          of: source.classDays.length,
          landing: landing + 1,
          ofTarget: target.classDays.length,
          residual,
        },
      })
    } else {
      const days = draft.from - source.classes.from
      draft.day =
        target.classes.from + (sourceLength === 0 ? days : roundDiv(days * targetLength, sourceLength))
      draft.reasons.push({
        slot: draft.slot,
        code: 'stretch-calendar',
        before,
        after: isoOf(draft.day),
        names: { days, of: sourceLength, ofTarget: targetLength },
      })
    }
    if (!rule.keepWeekday) return
    const weekday = turned(rule, draft.weekday)
    const stretched = draft.day
    draft.day = stretched + floorMod(weekday - weekdayOf(stretched) + 3, 7) - 3
    if (draft.day !== stretched)
      draft.reasons.push({
        slot: draft.slot,
        code: 'nearest-weekday',
        before: isoOf(stretched),
        after: isoOf(draft.day),
        names: { weekday },
      })
  }
}
