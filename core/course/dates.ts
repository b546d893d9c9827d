import type { WallTime } from '../calendar/schema'

/** The dates an item may have, in the order in which they are computed and shown. */
export const dateFields = ['opens', 'due', 'closes'] as const
export type DateField = (typeof dateFields)[number]
/** What an item does on each of its dates, as a sentence goes on after its name. */
export const dateVerbs: Readonly<Record<DateField, string>> = {
  opens: 'opens',
  due: 'is due',
  closes: 'closes',
}
/** When an item opens, is due and closes: one shape from the readers to the page. */
export type ItemDates = { [F in DateField]: WallTime | null }
/** Times of day for what is dated by its day alone: work opens at 08:00, and is due and closes at 23:59 (common practice, no source). */
export const usualTimes: Readonly<Record<DateField, string>> = {
  opens: '08:00',
  due: '23:59',
  closes: '23:59',
}
export const noDates: Readonly<ItemDates> = Object.freeze({ opens: null, due: null, closes: null })
/** The three dates of something that has them, and nothing else of it. */
export const datesOf = ({ opens, due, closes }: Readonly<ItemDates>): ItemDates => ({ opens, due, closes })
