import { z } from 'zod'
import { civilDate, type TermCalendar } from '../calendar/schema'
import { isoOf } from '../calendar/day'
import { compileTerm } from '../calendar/term'
import { dayText } from '../dates/words'

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

export interface WindowFault {
  readonly field: keyof Windows
  readonly severity: 'must' | 'look'
  readonly message: string
}
/** `Fri 1 Jan 2027` of a date. */
const told = (date: string): string => `${dayText(date)} ${date.slice(0, 4)}`
/** What is wrong with windows in a term: `must` cannot be meant, `look` may be. */
export function checkWindows(windows: Windows, { classes, exams }: TermDays): WindowFault[] {
  const faults: WindowFault[] = []
  const add = (field: keyof Windows, severity: WindowFault['severity'], message: string): void => {
    faults.push({ field, severity, message })
  }
  const { enrolFrom, enrolTo, openFrom, openTo } = windows
  const end = exams?.to ?? classes.to
  if (enrolFrom && enrolTo && enrolTo < enrolFrom)
    add('enrolTo', 'must', `Enrolment would end on ${told(enrolTo)}, before it begins on ${told(enrolFrom)}.`)
  if (openFrom && openTo && openTo < openFrom)
    add('openTo', 'must', `The course would close on ${told(openTo)}, before it opens on ${told(openFrom)}.`)
  if (openFrom && openFrom > classes.from)
    add(
      'openFrom',
      openFrom > classes.to ? 'must' : 'look',
      `Classes begin on ${told(classes.from)}, and students cannot enter before ${told(openFrom)}.`,
    )
  if (openTo && openTo < end)
    add(
      'openTo',
      openTo < classes.from ? 'must' : 'look',
      `The term ends on ${told(end)}, and students cannot enter after ${told(openTo)}.`,
    )
  if (enrolTo && enrolTo < classes.from)
    add(
      'enrolTo',
      'look',
      `Nobody can enrol once classes have begun on ${told(classes.from)}; some start on temporary access.`,
    )
  if (enrolFrom && enrolFrom > classes.from)
    add(
      'enrolFrom',
      'look',
      `Classes begin on ${told(classes.from)}, and nobody can enrol before ${told(enrolFrom)}.`,
    )
  return faults
}
