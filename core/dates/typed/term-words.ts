import { minuteOf, weekdayOf, type Day, type Weekday } from '../../calendar/day'
import { dayInWeek, meetingDays, type Closure, type Term } from '../../calendar/term'
import {
  onOrAfter,
  onOrBefore,
  weekdayOfWord,
  weekdayPattern,
  type DayReader,
  type Said,
  type TypedContext,
} from './typed'

const week = '(?:teaching\\s+)?(?:weeks?|wks?|w)\\s*(\\d{1,2})'
const inWeek = new RegExp(
  `^(?:${weekdayPattern}\\s+(?:of\\s+|in\\s+)?${week}|${week}(?:\\s+${weekdayPattern})?)$`,
)
/** `fri wk 5`, `week 5 fri`; `wk 5` keeps the weekday that stands, or takes the week's first class day. */
const teachingWeeks: DayReader = (text, { term, was }) => {
  const found = inWeek.exec(text)
  if (!found) return null
  if (!term) return { why: { code: 'no-term' } }
  const number = Number(found[2] ?? found[3])
  const first = term.weeks[number - 1]
  if (first === undefined) {
    const weeks = term.weeks.length
    return { why: { code: 'no-such-week', details: { week: number, weeks } } }
  }
  const word = found[1] ?? found[4]
  if (word === undefined && !was) return { day: term.classDays.find(day => day >= first) ?? first }
  const weekday = word === undefined ? weekdayOf(was?.day ?? first) : weekdayOfWord(word)
  return { day: dayInWeek(term.weekStart, first, weekday) }
}

/** `next class`, `last class`: the section's meeting after or before the date, at the time it starts. */
const classes: DayReader = (text, { term, meetings, was, today }) => {
  const found = /^(next|last|previous)\s+(?:class|meeting)$/.exec(text)
  if (!found) return null
  if (!term) return { why: { code: 'no-term' } }
  const days = meetingDays(term, meetings)
  if (days.length === 0) return { why: { code: 'no-meetings' } }
  const from = was?.day ?? today
  const way = found[1] === 'next' ? 'next' : 'last'
  const day = way === 'next' ? days.find(each => each > from) : days.filter(each => each < from).at(-1)
  if (day === undefined) return { why: { code: 'no-class', details: { way } } }
  const starts = meetings
    .filter(meeting => meeting.weekday === term.timetableWeekday(day))
    .map(meeting => minuteOf(meeting.start, 0))
  return { day, minute: Math.min(...starts) }
}

type Range = { readonly from: Day; readonly to: Day }
const plainWords = /^(?:the\s+)?(closure|break|recess|holidays?)$/
/** The closure that is meant: by a word of its name, else the one next to the date that stands. */
function closureNamed(
  term: Term,
  name: string,
  side: Side,
  { was, today }: TypedContext,
): Closure | undefined {
  const words = name.replace(/^the\s+/, '')
  const named = term.closures.filter(closure => closure.name.toLowerCase().includes(words))
  if (words !== '' && named.length > 0) return named[0]
  if (!plainWords.test(name)) return undefined
  const from = was?.day ?? today
  const inside = term.closures.find(({ from: first, to }) => from >= first && from <= to)
  const inOrder = [...term.closures].sort((a, b) => a.from - b.from)
  const following = inOrder.find(closure => closure.from > from)
  const before = inOrder.filter(closure => closure.to < from).at(-1)
  return inside ?? (side === 'after' ? (before ?? following) : (following ?? before))
}
function rangeNamed(term: Term, name: string, side: Side, context: TypedContext): Range | null {
  if (/^(?:the\s+)?exams?$/.test(name)) return term.exams
  if (/^(?:the\s+)?class(?:es)?$/.test(name)) return term.classes
  return closureNamed(term, name, side, context) ?? null
}

type Side = 'after' | 'before'
const besideRange = new RegExp(
  `^(?:(?:on\\s+)?${weekdayPattern}\\s+|(?:the\\s+)?day\\s+)?(after|before)\\s+(.+)$`,
)
/** `tue after the closure`, `before exams`, `fri before reading week`; without a weekday, the next usable day. */
const besideClosure: DayReader = (text, context) => {
  const found = besideRange.exec(text)
  if (!found) return null
  const { term } = context
  if (!term) return { why: { code: 'no-term' } }
  const [, word, side, name = ''] = found
  const after = side === 'after'
  const range = rangeNamed(term, name, after ? 'after' : 'before', context)
  if (!range) {
    const isPlain = plainWords.test(name)
    return { why: { code: 'no-such-closure', details: { name: isPlain ? '' : name } } }
  }
  const day = after ? range.to + 1 : range.from - 1
  if (word === undefined) return { day: usable(term, day, after ? 1 : -1) }
  const weekday: Weekday = weekdayOfWord(word)
  return { day: after ? onOrAfter(day, weekday) : onOrBefore(day, weekday) }
}
function usable(term: Term, from: Day, step: 1 | -1): Day {
  for (let day = from, tries = 0; tries < 60; day += step, tries++)
    if (term.closureOn(day) === undefined && term.teaches(term.timetableWeekday(day))) return day
  return from
}

const ends = /^(first|last|start|end)(?:\s+day)?(?:\s+of)?\s+(?:the\s+)?(class(?:es)?|exams?)$/
/** `first day of classes`, `end of exams` */
const endsOfTerm: DayReader = (text, { term }): Said | null => {
  const found = ends.exec(text)
  if (!found) return null
  if (!term) return { why: { code: 'no-term' } }
  const isFirst = found[1] === 'first' || found[1] === 'start'
  if (found[2]?.startsWith('class')) return { day: isFirst ? term.firstClassDay : term.lastClassDay }
  if (!term.exams) return { why: { code: 'not-understood' } }
  return { day: isFirst ? term.exams.from : term.exams.to }
}

export const termReaders: readonly DayReader[] = [teachingWeeks, classes, endsOfTerm, besideClosure]
