import type { Day } from '../calendar/day'
import { isoOf } from '../calendar/day'
import type { Term } from '../calendar/term'
import { bit, type Crossing, type Draft } from './draft'

export type Zone = 'before' | 'classes' | 'after' | 'exams'

/** Which part of the source term a date lies in (`docs/dates.md` §3). */
export function zoneOf(source: Term, day: Day): Zone {
  if (source.exams && day >= source.exams.from) return 'exams'
  if (day > source.classes.to) return 'after'
  return day < source.weeks[0]! ? 'before' : 'classes'
}

/** Places a date outside classes by counting days from a fixed point of its zone. Returns false in zone `classes`, with nothing done. */
export function placeOutsideClasses({ source, target }: Crossing, draft: Draft): boolean {
  const zone = zoneOf(source, draft.from)
  if (zone === 'classes') return false
  const note = (code: string, names: Record<string, string | number>) =>
    draft.reasons.push({ slot: draft.slot, code, before: isoOf(draft.from), after: isoOf(draft.day), names })
  if (zone === 'exams') {
    const days = draft.from - source.exams!.from
    if (!target.exams) {
      draft.day = target.classes.to
      draft.flags |= bit['no-exam-period']
      note('no-exams', { days, term: target.name })
      return true
    }
    draft.day = target.exams.from + days
    note('from-exams', { days, anchor: isoOf(target.exams.from) })
    if (draft.day > target.exams.to) {
      const before = isoOf(draft.day)
      draft.day = target.exams.to
      draft.flags |= bit['past-end']
      draft.reasons.push({ slot: draft.slot, code: 'past-exams', before, after: isoOf(draft.day) })
    }
  } else if (zone === 'after') {
    draft.day = target.classes.to + (draft.from - source.classes.to)
    note('after-classes', { days: draft.from - source.classes.to, anchor: isoOf(target.classes.to) })
  } else {
    draft.day = target.weeks[0]! + (draft.from - source.weeks[0]!)
    note('before-classes', { days: source.weeks[0]! - draft.from, anchor: isoOf(target.weeks[0]!) })
  }
  return true
}
