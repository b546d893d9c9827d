import { reason, type Told } from './reason'
import { dayOrBlank } from './saying'
import { counted } from './words'

interface Details {
  why: 'crowd' | 'day' | 'room'
  days: number
  sameDay: number
  perDay: number | null
}
function whyText({ before, details }: Told<Details>): string {
  if (details.why === 'crowd')
    return `${counted(details.sameDay, 'item')} were due on ${dayOrBlank(before)}, and ${details.perDay} a day is the limit.`
  if (details.why === 'day') return `${dayOrBlank(before)} is no day that work may be due on.`
  return `It makes room for what lies around ${dayOrBlank(before)}.`
}
/** Why easing a crowded plan moved a date. */
export const easeReasons = {
  eased: reason<Details>({
    short: 'eased',
    sentence: told =>
      `${whyText(told)} Moved by ${counted(Math.abs(told.details.days), 'day')} to ${dayOrBlank(told.after)}.`,
  }),
}
