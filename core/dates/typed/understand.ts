import { strict as chrono } from 'chrono-node'
import { civilOfDay, dayOfCivil, type Day } from '../../calendar/day'
import { isFarFrom, yearsFrom } from '../far'
import { civilReaders } from './civil'
import { relativeReaders } from './relative'
import { termReaders } from './term-words'
import { timeOff } from './time'
import type { DayReader, Said, TypedContext, Understood } from './typed'

const longest = 80
const none = /^(?:none|no(?:\s+date)?|nothing|never|-|–|—)$/

/** Whatever else is a day in plain English: `in two weeks`, `a week from tomorrow`. Only where the whole text is one. */
const plainEnglish: DayReader = (text, { was, today }) => {
  const { year, month, date } = civilOfDay(was?.day ?? today)
  const [found, another] = chrono.parse(text, new Date(year, month - 1, date, 12))
  if (!found || another || found.end || found.text.length < text.length) return null
  const at = found.start
  if (!at.get('day') || at.isCertain('hour')) return null
  return { day: dayOfCivil(at.get('year') ?? year, at.get('month') ?? month, at.get('day') ?? date) }
}
/** Ways of saying a day, in order: the first that knows the text understands it. */
const readers: readonly DayReader[] = [...relativeReaders, ...termReaders, ...civilReaders, plainEnglish]

/** Whether a day lies so far from the term that one is asked twice: more than two weeks from classes and exams. */
const isUnlikely = ({ term }: TypedContext, day: Day): boolean =>
  term !== null && (day < term.classes.from - 14 || day > (term.exams ?? term.classes).to + 14)

function dateFrom(
  said: Extract<Said, { day: Day }>,
  typed: number | null,
  context: TypedContext,
): Understood {
  const { was, usualMinute, today, term } = context
  const far = term
    ? isFarFrom(term, said.day)
    : Math.abs(civilOfDay(said.day).year - civilOfDay(today).year) > 20
  if (far) {
    const years = term ? yearsFrom(term, said.day) : civilOfDay(said.day).year - civilOfDay(today).year
    const details = { year: civilOfDay(said.day).year, years, than: term ? 'term' : 'today' } as const
    return { is: 'no-date', why: { code: 'far-off', details } }
  }
  const given = typed ?? said.minute ?? null
  const minute = usualMinute === null ? null : (given ?? was?.minute ?? usualMinute)
  const kept = minute !== null && given === null && was !== null
  return { is: 'date', day: said.day, minute, kept, unlikely: isUnlikely(context, said.day) }
}

/**
 * Understands a date as people type it, and says what it understood before it counts. Nothing is guessed: what can be read
 * in two ways is asked, what is no day is refused.
 */
export function understand(typed: string, context: TypedContext): Understood {
  const text = typed
    .toLowerCase()
    .replaceAll(',', ' ')
    .replace(/[\s\u00A0]+/g, ' ')
    .trim()
  if (text.length > longest) return { is: 'no-date', why: { code: 'not-understood' } }
  if (text === '' || none.test(text)) return { is: 'none' }
  const time = timeOff(text)
  if (time.isWrong !== null)
    return { is: 'no-date', why: { code: 'no-such-time', details: { time: time.isWrong } } }
  if (time.text === '') {
    const { was } = context
    if (!was) return { is: 'no-date', why: { code: 'nothing-to-count-from' } }
    return dateFrom({ day: was.day }, time.minute, context)
  }
  for (const read of readers) {
    const said = read(time.text, context)
    if (said === null) continue
    if ('why' in said) return { is: 'no-date', why: said.why }
    if ('day' in said) return dateFrom(said, time.minute, context)
    const each = said.days.map(day => dateFrom({ day }, time.minute, context))
    const possible = each.filter(one => one.is === 'date')
    const [first, second] = possible
    if (first && second) return { is: 'which', days: [first.day, second.day], minute: first.minute }
    return first ?? each[0] ?? { is: 'no-date', why: { code: 'not-understood' } }
  }
  return { is: 'no-date', why: { code: 'not-understood' } }
}
