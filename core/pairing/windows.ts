import { z } from 'zod'
import { civilDate, type TermCalendar } from '../calendar/schema'
import { isoOf } from '../calendar/day'
import { compileTerm } from '../calendar/term'
import { dayText } from '../dates/words'
import type { Finding, Grave } from '../checks/finding'

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
export const windowEndText = (date: string | null | undefined): string => (date ? told(date) : 'not limited')
const rangeText = (verb: string, from: string | null, to: string | null): string =>
  `${verb} ${from ? told(from) : 'from the start'} to ${to ? told(to) : 'the end'}`
/** Windows in words: `enrol Thu 10 Dec 2026 to …, enter …`. */
export const windowsText = (windows: Windows | null | undefined): string =>
  windows
    ? `${rangeText('enrol', windows.enrolFrom, windows.enrolTo)}, ${rangeText('enter', windows.openFrom, windows.openTo)}`
    : 'windows as they are'
/** What is wrong with windows in a term: `must` cannot be meant; `look` may be. */
export function checkWindows(windows: Windows, { classes, exams }: TermDays): Finding[] {
  const { enrolFrom, enrolTo, openFrom, openTo } = windows
  const end = exams?.to ?? classes.to
  const findings: Finding[] = []
  const add = (field: keyof Windows, grave: Grave, sentence: string): void =>
    void findings.push({
      check: 'enrol.window',
      short: 'enrolment and entry',
      grave,
      where: { lineage: null, field },
      sentence,
      mends: 'Take the term’s days',
    })
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
  return findings
}
