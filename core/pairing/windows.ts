import { z } from 'zod'
import { civilDate, type TermCalendar } from '../calendar/schema'
import { isoOf } from '../calendar/day'
import { compileTerm } from '../calendar/term'
import { dayText } from '../dates/words'
import { faultsFrom, type FaultOf } from '../fault'

/** When students may enrol and when they may enter, whole civil days of the term's zone, both ends included. Null: not limited. */
export const windowsSchema = z.object({
  enrolFrom: civilDate.nullable(),
  enrolTo: civilDate.nullable(),
  openFrom: civilDate.nullable(),
  openTo: civilDate.nullable(),
})
export type Windows = z.infer<typeof windowsSchema>
type TermDays = Pick<TermCalendar, 'classes' | 'exams'>

/**
 * Windows to begin with: the course opens a week before classes and closes two weeks after the last exam (or class); enrolment opens thirty
 * days before classes and stays open to the last day of teaching week 4, for those who start on temporary access (common practice, no source).
 */
export function defaultWindows(calendar: TermCalendar): Windows {
  const { classes, exams, weeks } = compileTerm(calendar)
  const fourth = weeks[3] ?? classes.to
  return {
    enrolFrom: isoOf(classes.from - 30),
    enrolTo: isoOf(Math.min(fourth + 6, classes.to)),
    openFrom: isoOf(classes.from - 7),
    openTo: isoOf((exams ?? classes).to + 14),
  }
}

/** `Fri 1 Jan 2027` of a date. */
const told = (date: string): string => `${dayText(date)} ${date.slice(0, 4)}`
/** One end of a window in words. */
export const windowEndTold = (date: string | null | undefined): string => (date ? told(date) : 'not limited')
const rangeTold = (verb: string, from: string | null, to: string | null): string =>
  `${verb} ${from ? told(from) : 'from the start'} to ${to ? told(to) : 'the end'}`
/** Windows in words: `enrol Thu 10 Dec 2026 to …, enter …`. */
export const windowsTold = (windows: Windows | null | undefined): string =>
  windows
    ? `${rangeTold('enrol', windows.enrolFrom, windows.enrolTo)}, ${rangeTold('enter', windows.openFrom, windows.openTo)}`
    : 'windows as they are'
interface Ends {
  from: string
  to: string
}
const sentences = {
  'enrolment-inverted': ({ from, to }: Ends) =>
    `Enrolment would end on ${told(to)}, before it begins on ${told(from)}.`,
  'course-inverted': ({ from, to }: Ends) =>
    `The course would close on ${told(to)}, before it opens on ${told(from)}.`,
  'opens-late': ({ classes, from }: { classes: string; from: string }) =>
    `Classes begin on ${told(classes)}, and students cannot enter before ${told(from)}.`,
  'closes-early': ({ end, to }: { end: string; to: string }) =>
    `The term ends on ${told(end)}, and students cannot enter after ${told(to)}.`,
  'enrolment-ends-early': ({ classes }: { classes: string }) =>
    `Nobody can enrol once classes have begun on ${told(classes)}; some start on temporary access.`,
  'enrolment-begins-late': ({ classes, from }: { classes: string; from: string }) =>
    `Classes begin on ${told(classes)}, and nobody can enrol before ${told(from)}.`,
}
const fault = faultsFrom(sentences)
export type WindowFault = FaultOf<typeof sentences> & {
  readonly field: keyof Windows
  /** `must`: cannot be meant; `look`: may be. */
  readonly severity: 'must' | 'look'
}
/** What is wrong with windows in a term. */
export function checkWindows(windows: Windows, { classes, exams }: TermDays): WindowFault[] {
  const { enrolFrom, enrolTo, openFrom, openTo } = windows
  const end = exams?.to ?? classes.to
  const faults: WindowFault[] = []
  const add = (field: keyof Windows, severity: WindowFault['severity'], found: FaultOf<typeof sentences>) => {
    faults.push({ ...found, field, severity })
  }
  if (enrolFrom && enrolTo && enrolTo < enrolFrom)
    add('enrolTo', 'must', fault('enrolment-inverted', { from: enrolFrom, to: enrolTo }))
  if (openFrom && openTo && openTo < openFrom)
    add('openTo', 'must', fault('course-inverted', { from: openFrom, to: openTo }))
  if (openFrom && openFrom > classes.from) {
    const severity = openFrom > classes.to ? 'must' : 'look'
    add('openFrom', severity, fault('opens-late', { classes: classes.from, from: openFrom }))
  }
  if (openTo && openTo < end)
    add('openTo', openTo < classes.from ? 'must' : 'look', fault('closes-early', { end, to: openTo }))
  if (enrolTo && enrolTo < classes.from)
    add('enrolTo', 'look', fault('enrolment-ends-early', { classes: classes.from }))
  if (enrolFrom && enrolFrom > classes.from)
    add('enrolFrom', 'look', fault('enrolment-begins-late', { classes: classes.from, from: enrolFrom }))
  return faults
}
