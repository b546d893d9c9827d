import type { DateField } from '../course/dates'
import { counted, dayText, momentText, weekdayName } from './words'

/** Words that several reasons share. A date that is not there reads as nothing. */
export const dayOrBlank = (text: string | null): string => (text === null ? '' : dayText(text))
export const momentOrBlank = (text: string | null): string => (text === null ? '' : momentText(text))
export const timeOrBlank = (text: string | null): string => (text === null ? '' : text.slice(11))

/** A date field in the middle of a sentence. */
export const fieldWord: Record<DateField, string> = { opens: 'opening', due: 'due date', closes: 'closing' }
/** `Wednesday’s work becomes Thursday’s` */
export const turnedText = (was: number, weekday: number): string =>
  `${weekdayName(was)}’s work becomes ${weekdayName(weekday)}’s`
/** `3 days after exams began`; on the day itself, `on`. */
export function distanceText(days: number, words: { after: string; before: string; on: string }): string {
  if (days === 0) return words.on
  return days > 0 ? `${counted(days, 'day')} ${words.after}` : `${counted(-days, 'day')} ${words.before}`
}
/** `2 days after ` before the name of a day; nothing on the day itself. */
export function residualText(days: number): string {
  if (days === 0) return ''
  return days > 0 ? `${counted(days, 'day')} after ` : `${counted(-days, 'day')} before `
}
