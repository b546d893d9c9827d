import { dayOf, minuteOf, roundDiv, wallOf, weekdayOf, type Day, type WallTime } from '../../calendar/day'
import { dayInWeek, isUsable, lastAtOrBefore, type Term } from '../../calendar/term'
import { dateFields, type DateField, type ItemDates } from '../../course/dates'
import { flags, type Flag } from '../flags'
import type { PlannedItem } from '../plan'
import { usableOn } from '../steps/closure'
import { dayText } from '../words'
import { withWindow } from './moves'

type SettlingFlag = { [F in Flag]: (typeof flags)[F] extends 'settle' ? F : never }[Flag]
const isSettling = (flag: Flag): flag is SettlingFlag => flags[flag] === 'settle'

/** The two terms of a plan, as far as a choice looks at them. */
interface Terms {
  readonly source: Term
  readonly target: Term
}
/** A way to settle a date. `to`: where it puts the date, which was on the day `was`; null: there is no such place. */
interface Choice {
  /** What is said beside the day. */
  readonly words: string
  readonly to: (at: WallTime, terms: Terms, was: Day | null) => WallTime | null
}
const onDay = (day: number | null, at: WallTime): WallTime | null =>
  day === null ? null : wallOf(day, minuteOf(at))
const inLastWeek = (at: WallTime, term: Term): number | null => {
  const day = dayInWeek(term.weekStart, term.weeks.at(-1) ?? term.firstWeek, weekdayOf(dayOf(at)))
  return day <= term.lastClassDay && isUsable(term, day) ? day : null
}
/** The class day of the new term at the same share of it as the old day was of the old one (`docs/dates.md`, stretch by class days). */
function atShare({ source, target }: Terms, was: Day | null): Day | null {
  if (was === null || was > source.classes.to) return null
  const [old, now] = [source.classDays, target.classDays]
  const place = Math.max(0, lastAtOrBefore(old, was))
  return now[old.length > 1 ? roundDiv(place * (now.length - 1), old.length - 1) : 0] ?? null
}
const choices = {
  'same-share': {
    words: 'the same share of the term',
    to: (at, terms, was) => onDay(atShare(terms, was), at),
  },
  'next-day': {
    words: 'the next usable day',
    to: (at, { target }) => onDay(usableOn(target, dayOf(at), 1), at),
  },
  'day-before': {
    words: 'the usable day before',
    to: (at, { target }) => onDay(usableOn(target, dayOf(at), -1), at),
  },
  'first-class-day': {
    words: 'the first class day',
    to: (at, { target }) => onDay(target.firstClassDay, at),
  },
  'last-week': {
    words: 'the same weekday of the last week',
    to: (at, { target }) => onDay(inLastWeek(at, target), at),
  },
  'first-exam-day': {
    words: 'the first exam day',
    to: (at, { target }) => onDay(target.exams?.from ?? null, at),
  },
  'hour-before': {
    words: 'an hour earlier',
    to: at => (minuteOf(at) >= 60 ? wallOf(dayOf(at), minuteOf(at) - 60) : null),
  },
  stay: { words: 'where it is', to: at => at },
} as const satisfies Record<string, Choice>
export type ChoiceName = keyof typeof choices

/** What a person can do about a date that wants settling, by what is wrong with it; the first is what most would do (common practice). */
const choicesFor: Record<SettlingFlag, readonly ChoiceName[]> = {
  'before-start': ['stay', 'first-class-day', 'next-day'],
  'dst-gap': ['stay', 'hour-before'],
  'no-exam-period': ['stay', 'last-week', 'day-before'],
  'no-meetings': ['stay', 'next-day', 'day-before'],
  'no-milestone': ['stay', 'next-day', 'day-before'],
  'on-closure': ['next-day', 'day-before', 'stay'],
  'past-end': ['same-share', 'stay', 'last-week', 'first-exam-day'],
  'source-inverted': ['stay'],
}

/** A button for a date that wants settling: what it does, and the dates that the item would be held at. */
export interface OfferedChoice {
  readonly name: ChoiceName
  readonly field: DateField
  /** `Tue 30 Mar`; `Leave it in Study week` where nothing moves. */
  readonly outcome: string
  /** `the next usable day`; empty where the outcome says it all. */
  readonly words: string
  readonly dates: ItemDates
}
/** The first date of an item that wants settling, in the order opens, due, closes, and what is wrong with it; null: none does. */
export function unsettledOf({ crossed }: PlannedItem): { field: DateField; flag: SettlingFlag } | null {
  for (const field of dateFields) {
    const flag = crossed[field].outcome === 'settle' ? crossed[field].flags.find(isSettling) : undefined
    if (flag) return { field, flag }
  }
  return null
}
const stayText = (at: WallTime, { closureOn }: Pick<Term, 'closureOn'>): string => {
  const closure = closureOn(dayOf(at))
  if (!closure) return `Leave it on ${dayText(at)}`
  return `Leave it ${closure.from === closure.to ? 'on' : 'in'} ${closure.name || 'the closure'}`
}
/** A choice for an item, or null where it has no such place. */
function offered(name: ChoiceName, item: PlannedItem, field: DateField, terms: Terms): OfferedChoice | null {
  const at = item[field]
  const before = item.crossed[field].reasons[0]?.before ?? null
  const to = at && choices[name].to(at, terms, before === null ? null : dayOf(before))
  if (!at || !to) return null
  const isStay = name === 'stay'
  return {
    name,
    field,
    outcome: isStay ? stayText(at, terms.target) : dayText(to),
    words: isStay ? '' : choices[name].words,
    dates: withWindow(item, field, to),
  }
}
/** What can be done about the first date of an item that wants settling. Two choices that come to the same are one. */
export function choicesOf(item: PlannedItem, terms: Terms): OfferedChoice[] {
  const unsettled = unsettledOf(item)
  if (!unsettled) return []
  const { field, flag } = unsettled
  const all = choicesFor[flag].flatMap(name => offered(name, item, field, terms) ?? [])
  const places = all.map(({ dates }) => dates[field])
  return all.filter(
    ({ name }, index) =>
      name === 'stay' || (places[index] !== item[field] && places.indexOf(places[index] ?? null) === index),
  )
}
/** Items that want settling for the same reason in the same date, the item itself among them. */
export function alikeItems(items: readonly PlannedItem[], item: PlannedItem): PlannedItem[] {
  const wanted = unsettledOf(item)
  if (!wanted) return []
  return items.filter(each => {
    const own = unsettledOf(each)
    return own?.field === wanted.field && own.flag === wanted.flag
  })
}
/** The same choice for many items: the dates that each would be held at; those that have no such place are left out. */
export function choiceForAll(
  items: readonly PlannedItem[],
  name: ChoiceName,
  terms: Terms,
): Map<string, ItemDates> {
  return new Map(
    items.flatMap(item => {
      const unsettled = unsettledOf(item)
      const choice = unsettled && offered(name, item, unsettled.field, terms)
      return choice ? [[item.id, choice.dates] as const] : []
    }),
  )
}
