import { isoOf, type Day } from '../calendar/day'
import type { Term } from '../calendar/term'
import type { Crossing, Draft } from './draft'
import { bit } from './flags'
import { reason } from './reason'
import { distanceText, dayOrBlank } from './saying'
import { counted } from './words'

/** Parts of a term, as a date of the source lies in them (`docs/dates.md` §3, which calls them zones). */
export type Phase = 'before' | 'classes' | 'after' | 'exams'

/** Which phase of the source term a date lies in. */
export function phaseOf(source: Term, day: Day): Phase {
  if (source.exams && day >= source.exams.from) return 'exams'
  if (day > source.classes.to) return 'after'
  return day < source.firstWeek ? 'before' : 'classes'
}

const exams = { after: 'after exams began', before: 'before exams began', on: 'the first day of exams' }
const classesEnd = {
  after: 'after classes ended',
  before: 'before classes ended',
  on: 'the last day of classes',
}
/** Reasons of dates that are placed by counting days, whichever the method. */
export const phaseReasons = {
  'from-exams': reason<{ days: number; anchor: string }>({
    short: 'by exam day',
    sentence: ({ before, after, details: { days, anchor } }) =>
      `Was ${dayOrBlank(before)}, ${distanceText(days, exams)}. Exams now begin ${dayOrBlank(anchor)}, which gives ${dayOrBlank(after)}.`,
  }),
  'no-exams': reason<{ days: number; term: string }>({
    short: 'no exam period',
    sentence: ({ before, after, details: { term } }) =>
      `Was ${dayOrBlank(before)}, in the exam period. ${term} has none, so it goes to the last day of classes, ${dayOrBlank(after)}.`,
  }),
  'past-exams': reason({
    short: 'past the end',
    sentence: ({ before, after }) =>
      `${dayOrBlank(before)} is past the end of exams, so it is ${dayOrBlank(after)}, their last day.`,
  }),
  'after-classes': reason<{ days: number; anchor: string }>({
    short: 'after classes',
    sentence: ({ before, after, details: { days, anchor } }) =>
      `Was ${dayOrBlank(before)}, ${distanceText(days, classesEnd)}. Classes now end ${dayOrBlank(anchor)}, which gives ${dayOrBlank(after)}.`,
  }),
  'before-classes': reason<{ days: number; anchor: string }>({
    short: 'before classes',
    sentence: ({ before, after, details: { days, anchor } }) =>
      `Was ${dayOrBlank(before)}, ${counted(days, 'day')} before the first teaching week. That week now starts ${dayOrBlank(anchor)}, which gives ${dayOrBlank(after)}.`,
  }),
}

function placeInExams(source: { from: Day }, target: Term, draft: Draft): void {
  const { field } = draft
  const days = draft.from - source.from
  const before = isoOf(draft.from)
  if (!target.exams) {
    draft.day = target.classes.to
    draft.flags |= bit['no-exam-period']
    const details = { days, term: target.name }
    draft.reasons.push({ field, code: 'no-exams', before, after: isoOf(draft.day), details })
    return
  }
  const placed = target.exams.from + days
  draft.day = placed
  const details = { days, anchor: isoOf(target.exams.from) }
  draft.reasons.push({ field, code: 'from-exams', before, after: isoOf(placed), details })
  if (placed <= target.exams.to) return
  draft.day = target.exams.to
  draft.flags |= bit['past-end']
  draft.reasons.push({ field, code: 'past-exams', before: isoOf(placed), after: isoOf(draft.day) })
}

/** Places a date outside classes by counting days from a fixed point of its phase. Returns false within classes, with nothing done. */
export function placeOutsideClasses({ source, target }: Crossing, draft: Draft): boolean {
  const phase = phaseOf(source, draft.from)
  if (phase === 'classes') return false
  if (phase === 'exams') {
    if (source.exams) placeInExams(source.exams, target, draft)
    return true
  }
  const { field } = draft
  const before = isoOf(draft.from)
  if (phase === 'after') {
    const days = draft.from - source.classes.to
    draft.day = target.classes.to + days
    const details = { days, anchor: isoOf(target.classes.to) }
    draft.reasons.push({ field, code: 'after-classes', before, after: isoOf(draft.day), details })
  } else {
    const days = source.firstWeek - draft.from
    draft.day = target.firstWeek - days
    const details = { days, anchor: isoOf(target.firstWeek) }
    draft.reasons.push({ field, code: 'before-classes', before, after: isoOf(draft.day), details })
  }
  return true
}
