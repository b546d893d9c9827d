import { readFileSync } from 'node:fs'
import { termCalendar } from '../../core/calendar/schema'
import { compileTerm, type Term } from '../../core/calendar/term'

/** The new term of the first worked case: Spring 2027, classes from 6 January to 9 April, exams to 21 April. */
export function springTerm(): Term {
  const text = readFileSync(new URL('../cases/01-same-week-and-weekday.json', import.meta.url), 'utf8')
  return compileTerm(termCalendar.parse((JSON.parse(text) as { case: { target: unknown } }).case.target))
}
