import { civilOfDay, isoOf, wallOf, type Day } from '../../calendar/day'
import { teachingWeek, type Term } from '../../calendar/term'
import { phaseOf } from '../phases'
import { counted, dayText, monthName, weekdayName } from '../words'
import { noDateText } from './no-date'
import type { TypedContext, Understood } from './typed'

/** What the field says it understood: what counts first, and what else one should know of that day. */
export interface Echo {
  readonly lead: string
  readonly rest: readonly string[]
  /** `sure`: Enter takes it. `asks`: one answers first. `refused`: it is no date that may stand here. */
  readonly tone: 'sure' | 'asks' | 'refused'
}

/** Whether a day's year goes without saying: that of the term, or of today where there is none. */
function isUsualYear({ term, today }: Pick<TypedContext, 'term' | 'today'>, day: Day): boolean {
  const { year } = civilOfDay(day)
  if (!term) return year === civilOfDay(today).year
  return (
    year >= civilOfDay(term.classes.from).year && year <= civilOfDay((term.exams ?? term.classes).to).year
  )
}
/** `Fri 5 Feb`, and the year wherever it is not the term's; with a time, `Fri 5 Feb 23:59`. */
export function dateText(
  day: Day,
  minute: number | null,
  context: Pick<TypedContext, 'term' | 'today'>,
): string {
  const year = isUsualYear(context, day) ? '' : ` ${civilOfDay(day).year}`
  const time = minute === null ? '' : ` ${wallOf(day, minute).slice(11)}`
  return `${dayText(isoOf(day))}${year}${time}`
}

/** Where in the term a day lies, in a few words. */
export function placeInTerm(term: Term, day: Day): string[] {
  const closure = term.closureOn(day)
  if (closure) return [`no classes: ${closure.name || 'closure'}`]
  const { classes, exams } = term
  switch (phaseOf(term, day)) {
    case 'exams':
      return [exams && day > exams.to ? `${counted(day - exams.to, 'day')} after exams end` : 'exams']
    case 'after':
      return [`${counted(day - classes.to, 'day')} after classes end`]
    case 'before':
      return [`${counted(classes.from - day, 'day')} before classes begin`]
    case 'classes': {
      const { week, after } = teachingWeek(term, day)
      const change = term.runsAs.find(entry => entry.date === day)
      const follows = change ? [`runs on a ${weekdayName(change.weekday)} timetable`] : []
      return [after > 0 ? `break after week ${week}` : `week ${week}`, ...follows]
    }
  }
}
const shortDate = (day: Day): string => {
  const { month, date } = civilOfDay(day)
  return `${date} ${monthName(month)}`
}

/** What to say of what was understood. `dueOn`: how many other items are due on a day. */
export function echoOf(
  understood: Understood,
  context: TypedContext,
  dueOn: (day: Day) => number = () => 0,
): Echo {
  switch (understood.is) {
    case 'none':
      return { lead: 'No date', rest: [], tone: 'sure' }
    case 'no-date':
      return { lead: noDateText(understood.why), rest: [], tone: 'refused' }
    case 'which': {
      const [first, second] = understood.days
      return { lead: `${shortDate(first)} or ${shortDate(second)}? Press 1 or 2.`, rest: [], tone: 'asks' }
    }
    case 'date': {
      const { day, minute, kept, unlikely } = understood
      const place = context.term ? placeInTerm(context.term, day) : []
      const others = dueOn(day)
      const due = others > 0 ? [`${counted(others, 'more', 'more')} due that day`] : []
      const lead = dateText(day, kept ? null : minute, context)
      const time = kept && minute !== null ? ` ${wallOf(day, minute).slice(11)} kept` : ''
      const whole = `${lead}${time && ','}${time}`
      if (unlikely)
        return {
          lead: `${whole}, ${place.join(', ')}. Press Enter again to keep it.`,
          rest: [],
          tone: 'asks',
        }
      return { lead: whole, rest: [...place, ...due], tone: 'sure' }
    }
  }
}
