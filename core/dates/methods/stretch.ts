import { z } from 'zod'
import { floorMod, isoOf, roundDiv, weekdayOf, type Day } from '../../calendar/day'
import { lastAtOrBefore } from '../../calendar/term'
import type { Crossing, Draft } from '../draft'
import type { DateMethod } from '../method'
import { placeOutsideClasses } from '../phases'
import { reason } from '../reason'
import { turned, yesOrNo } from '../rule-common'
import { residualText, dayOrBlank } from '../saying'
import { counted, weekdayName } from '../words'

const parameters = {
  basis: z
    .enum(['calendar', 'teaching'], { error: 'must be calendar or teaching' })
    .nullish()
    .transform(value => value ?? ('calendar' as const)),
  /** Then the date of the same weekday (by the rule's table) within three days of that. */
  keepWeekday: yesOrNo,
}
/** The index-th of the source's days and the one it lands on, counted from 1, with the days past it. */
export interface ShareDetails {
  index: number
  of: number
  landing: number
  ofTarget: number
  residual: number
}
const reasons = {
  'stretch-calendar': reason<{ days: number; of: number; ofTarget: number }>({
    short: 'stretched',
    sentence: ({ before, after, details: { days, of, ofTarget } }) =>
      `Was ${dayOrBlank(before)}, ${counted(days, 'day')} into the ${of} of classes. The same share of ${ofTarget} days is ${dayOrBlank(after)}.`,
  }),
  'stretch-teaching': reason<ShareDetails>({
    short: 'stretched',
    sentence: ({ before, after, details: { residual, index, of, landing, ofTarget } }) =>
      `Was ${dayOrBlank(before)}, ${residualText(residual)}class day ${index} of ${of}. Class day ${landing} of ${ofTarget} gives ${dayOrBlank(after)}.`,
  }),
  'nearest-weekday': reason<{ weekday: number }>({
    sentence: ({ after, details }) => `The nearest ${weekdayName(details.weekday)} is ${dayOrBlank(after)}.`,
  }),
}

/** Where a date lies among ordered days: index of the last one at or before it (0 if none) and the days past it. */
export function indexAmong(days: readonly Day[], day: Day): { index: number; residual: number } {
  const index = Math.max(0, lastAtOrBefore(days, day))
  return { index, residual: day - (days[index] ?? day) }
}
/** The index-th of ordered days plus a residual that, if positive, never reaches the next of them. */
export function dayAmong(days: readonly Day[], index: number, residual: number): Day {
  const day = days[index] ?? 0
  const next = days[index + 1]
  return day + (residual > 0 && next !== undefined ? Math.min(residual, next - day - 1) : residual)
}
/** Index i of n source days as a share of m target days. */
export const share = (index: number, sourceCount: number, targetCount: number): number =>
  sourceCount === 1 ? 0 : roundDiv(index * (targetCount - 1), sourceCount - 1)

function byClassDays({ source, target }: Crossing, draft: Draft): void {
  const [from, to] = [source.classDays, target.classDays]
  const { index, residual } = indexAmong(from, draft.from)
  const landing = share(index, from.length, to.length)
  draft.day = dayAmong(to, landing, residual)
  draft.reasons.push({
    field: draft.field,
    code: 'stretch-teaching',
    before: isoOf(draft.from),
    after: isoOf(draft.day),
    details: { index: index + 1, of: from.length, landing: landing + 1, ofTarget: to.length, residual },
  })
}
function byCalendarDays({ source, target }: Crossing, draft: Draft): void {
  const of = source.classes.to - source.classes.from
  const ofTarget = target.classes.to - target.classes.from
  const days = draft.from - source.classes.from
  draft.day = target.classes.from + (of === 0 ? days : roundDiv(days * ofTarget, of))
  draft.reasons.push({
    field: draft.field,
    code: 'stretch-calendar',
    before: isoOf(draft.from),
    after: isoOf(draft.day),
    details: { days, of, ofTarget },
  })
}

/** The term's length is stretched or shrunk: by calendar days between the ends of classes, or by class days. */
export const stretch: DateMethod<'stretch', typeof parameters, typeof reasons> = {
  name: 'stretch',
  title: 'Stretched to the length of the term',
  line: 'keeps the share of the term',
  parameters,
  reasons,
  asks: [
    {
      as: 'choice',
      name: 'basis',
      words: 'counted in',
      options: { teaching: 'class days', calendar: 'calendar days' },
    },
    { as: 'check', name: 'keepWeekday', words: 'on the same weekday' },
  ],
  compared: { with: { basis: 'teaching' }, rank: { same: 4, other: 1 } },
  prepare(rule, crossing) {
    const place = rule.basis === 'teaching' ? byClassDays : byCalendarDays
    return draft => {
      if (placeOutsideClasses(crossing, draft)) return
      place(crossing, draft)
      if (!rule.keepWeekday) return
      const weekday = turned(rule, draft.weekday)
      const stretched = draft.day
      draft.day = stretched + floorMod(weekday - weekdayOf(stretched) + 3, 7) - 3
      if (draft.day === stretched) return
      draft.reasons.push({
        field: draft.field,
        code: 'nearest-weekday',
        before: isoOf(stretched),
        after: isoOf(draft.day),
        details: { weekday },
      })
    }
  },
}
