import { isDate } from '../calendar/day'
import { dayText } from '../dates/words'

/** What a run may set of the shell itself: its names, and when students may enrol and enter. */
export interface ShellFacts {
  title: string | null
  label: string | null
  enrolFrom: string | null
  enrolTo: string | null
  openFrom: string | null
  openTo: string | null
}
/** What each of them is called, by the column that holds it. */
export const shellFactWords: Readonly<Record<string, string>> = {
  shown_title: 'Title students see',
  label: 'Section label',
  enrol_from: 'Students may enrol from',
  enrol_to: 'Students may enrol until',
  open_from: 'Students may enter from',
  open_to: 'Students may enter until',
}
/** A name as it is, a day as it is said with its year. */
export function shellFactText(value: string | null): string {
  if (value === null) return 'not set'
  return isDate(value) ? `${dayText(value)} ${value.slice(0, 4)}` : value
}
