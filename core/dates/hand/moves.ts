import { dayOf, minuteOf, wallOf, type Day, type WallTime } from '../../calendar/day'
import { weekFirst, type Term } from '../../calendar/term'
import { dateFields, datesOf, type DateField, type ItemDates } from '../../course/dates'

/** What a move by hand looks at: an item with its dates as they stand, in course order among the others. */
export interface HandItem extends Readonly<ItemDates> {
  readonly id: string
  readonly kind: string
  readonly unit: string | null
}
/** New dates by item: what a move would hold. Items that are not named stay as they are. */
export type HandDates = ReadonlyMap<string, ItemDates>

/** A wall-clock time some days on; the time of day is kept. */
export const daysOn = (at: WallTime, days: number): WallTime => wallOf(dayOf(at) + days, minuteOf(at))
const shifted = (item: HandItem, days: number, fields: readonly DateField[] = dateFields): ItemDates => {
  const dates = datesOf(item)
  for (const field of fields) {
    const at = dates[field]
    if (at !== null) dates[field] = daysOn(at, days)
  }
  return dates
}
const made = (items: readonly HandItem[], of: (item: HandItem) => ItemDates): HandDates =>
  new Map(items.map(item => [item.id, of(item)]))
const hasDate = (item: HandItem): boolean => dateFields.some(field => item[field] !== null)
/** When an item is due, else when it opens, else when it closes. */
export const tellingDate = ({ due, opens, closes }: Readonly<ItemDates>): WallTime | null =>
  due ?? opens ?? closes

/** Moves dates by whole days; all dates of an item, so that it stays open as long, or just some of them. */
export const movedBy = (
  items: readonly HandItem[],
  days: number,
  fields: readonly DateField[] = dateFields,
): HandDates => made(items.filter(hasDate), item => shifted(item, days, fields))

/** Who goes along where items are moved. `later`: whatever falls after the earliest of them. */
export const followings = ['nobody', 'later', 'unit', 'kind', 'all'] as const
export type Following = (typeof followings)[number]
/** The chosen items with those that follow them, in the order of `all`. */
export function withFollowers(
  all: readonly HandItem[],
  chosen: ReadonlySet<string>,
  following: Following,
): HandItem[] {
  const own = all.filter(item => chosen.has(item.id))
  const units = new Set(own.map(item => item.unit))
  const kinds = new Set(own.map(item => item.kind))
  const first = own.flatMap(item => tellingDate(item) ?? []).sort()[0] ?? null
  const isLater = (at: WallTime | null): boolean => first !== null && at !== null && at > first
  const follows: Record<Following, (item: HandItem) => boolean> = {
    nobody: () => false,
    later: item => isLater(tellingDate(item)),
    unit: item => units.has(item.unit),
    kind: item => kinds.has(item.kind),
    all: () => own.length > 0,
  }
  return all.filter(item => chosen.has(item.id) || follows[following](item))
}

/** Gives items one date, and leaves their others. */
export const withDate = (items: readonly HandItem[], field: DateField, at: WallTime | null): HandDates =>
  made(items, item => ({ ...datesOf(item), [field]: at }))
/** Gives items all the dates of one. */
export const withDatesOf = (items: readonly HandItem[], one: Readonly<ItemDates>): HandDates =>
  made(items, () => datesOf(one))
/** Opens items on a day at midnight and never closes them; when they are due stays. */
export const openFrom = (items: readonly HandItem[], day: Day): HandDates =>
  made(items, ({ due }) => ({ opens: wallOf(day, 0), due, closes: null }))

/** How far each item lies after the one before where a date is filled down. */
export const fillSteps = ['same', 'day', 'week', 'meeting'] as const
export type FillStep = (typeof fillSteps)[number]
/**
 * Fills a date of the first item down to the others, in the order given: the same, or each a day, a week or a class
 * meeting after the one before. Where there are not meetings enough, those that find none stay as they are.
 */
export function filledDown(
  items: readonly HandItem[],
  field: DateField,
  step: FillStep,
  meetings: readonly Day[],
): HandDates {
  const [first, ...others] = items
  const from = first?.[field] ?? null
  if (!first || from === null) return new Map()
  const later = meetings.filter(day => day > dayOf(from))
  const dayAt: Record<FillStep, (place: number) => Day | undefined> = {
    same: () => dayOf(from),
    day: place => dayOf(from) + place,
    week: place => dayOf(from) + 7 * place,
    meeting: place => later[place - 1],
  }
  return new Map(
    others.flatMap((item, index) => {
      const day = dayAt[step](index + 1)
      const dates = { ...datesOf(item), [field]: day === undefined ? null : wallOf(day, minuteOf(from)) }
      return day === undefined ? [] : [[item.id, dates] as const]
    }),
  )
}

/**
 * Spreads what is due in one week over the days of that week (`days`, ascending: usable days, or meeting days), week by week: of n
 * items on d days the k-th is due on day ⌊k·d/n⌋, in the order given. Opening and closing move along. A week without such
 * a day stays as it is.
 */
export function spreadOver(
  items: readonly HandItem[],
  days: readonly Day[],
  { weekStart }: Pick<Term, 'weekStart'>,
): HandDates {
  const weeks = new Map<Day, HandItem[]>()
  for (const item of items) {
    if (item.due === null) continue
    const week = weekFirst(weekStart, dayOf(item.due))
    weeks.set(week, [...(weeks.get(week) ?? []), item])
  }
  const spread = new Map<string, ItemDates>()
  for (const [week, due] of weeks) {
    const within = days.filter(day => day >= week && day < week + 7)
    due.forEach((item, index) => {
      const day = within[Math.floor((index * within.length) / due.length)]
      if (day !== undefined && item.due !== null) spread.set(item.id, shifted(item, day - dayOf(item.due)))
    })
  }
  return spread
}

/**
 * A date put on another day, with the window that belongs to it: what was in order and would be out of it moves along by as many days, and
 * at least as far as its neighbour.
 */
export function withWindow(item: Readonly<ItemDates>, field: DateField, at: WallTime | null): ItemDates {
  const dates: ItemDates = { ...datesOf(item), [field]: at }
  const was = item[field]
  if (at === null || was === null) return dates
  const days = dayOf(at) - dayOf(was)
  const place = dateFields.indexOf(field)
  const sides = [
    { others: dateFields.slice(place + 1), isInOrder: (a: WallTime, b: WallTime) => a <= b },
    { others: dateFields.slice(0, place).reverse(), isInOrder: (a: WallTime, b: WallTime) => a >= b },
  ]
  for (const { others, isInOrder } of sides) {
    let [before, now] = [was, at]
    for (const other of others) {
      const own = item[other]
      if (own === null) continue
      if (isInOrder(before, own) && !isInOrder(now, own)) {
        const along = daysOn(own, days)
        dates[other] = isInOrder(now, along) ? along : now
      }
      ;[before, now] = [own, dates[other] ?? own]
    }
  }
  return dates
}
