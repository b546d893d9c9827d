import { civilOfDay, dayOf, dayOfCivil, type Day } from '../calendar/day'
import type { Term } from '../calendar/term'
import { noDateText } from './typed/no-date'
import { dayText } from './words'

type Span = Pick<Term, 'classes' | 'exams'>
/** Years before and after a term in which a date set by hand may lie (`docs/dates.md` §5, `other-year`). */
const yearsAround = 2

function shifted(day: Day, years: number): Day {
  const { year, month, date } = civilOfDay(day)
  // 29 February becomes 1 March where the year has none.
  return dayOfCivil(year + years, month, date)
}
/** Whether a day lies more than two years from a term: no date set by hand may. */
export const isFarFrom = ({ classes, exams }: Span, day: Day): boolean =>
  day < shifted(classes.from, -yearsAround) || day > shifted((exams ?? classes).to, yearsAround)
/** Years from the term's to a day's, below nought before it. */
export function yearsFrom({ classes, exams }: Span, day: Day): number {
  const { year } = civilOfDay(day)
  const [first, last] = [civilOfDay(classes.from).year, civilOfDay((exams ?? classes).to).year]
  return year < first ? year - first : Math.max(0, year - last)
}
/** A date or date-time that lies too far from a term to be meant, as a fault of the field at `path`; none where it does not. */
export function farFault(
  path: readonly string[],
  at: string,
  term: Span,
): { path: readonly string[]; message: string }[] {
  const day = dayOf(at)
  if (!isFarFrom(term, day)) return []
  const { year } = civilOfDay(day)
  const why = { code: 'far-off', details: { year, years: yearsFrom(term, day), than: 'term' } } as const
  return [{ path, message: `${dayText(at)} ${year} cannot be meant: ${noDateText(why)}` }]
}
