import type { Years } from '~~/core/calendar/zone'
import { codeOf, codeText, courseText } from '~~/core/course/code-text'
import {
  counted,
  dayText,
  meetingText,
  momentText,
  numberText,
  rangeText,
  shortDay,
  yearsOf,
  yearsOfClasses,
} from '~~/core/dates/words'
import type { DateField } from '~~/core/course/dates'
import { kindWords } from '~~/core/course/model'
import { sizeText } from '~~/core/formats/limits'
import { pointsText } from '~~/core/grading/points'
import type { CourseLine } from '~~/shared/api/courses'
import type { RosterChangeView } from '~~/shared/api/registrar'

export {
  codeOf,
  codeText,
  courseText,
  counted,
  dayText,
  kindWords,
  meetingText,
  momentText,
  numberText,
  pointsText,
  rangeText,
  shortDay,
  sizeText,
  yearsOf,
  yearsOfClasses,
}

const fieldNames: Record<DateField, string> = { opens: 'Opens', due: 'Due', closes: 'Closes' }
export const fieldName = (field: DateField): string => fieldNames[field]
/** `1 point`, `2.5 points`. */
export const pointsCounted = (points: number): string =>
  `${pointsText(points)} ${points === 10_000 ? 'point' : 'points'}`
/** `Autumn 2026 · 2 Sept – 4 Dec · Mon Wed Fri 09:30`, and the zone where it is not that of the page's clock. */
export const courseFacts = ({ term, meetings }: CourseLine): string => {
  const { from, to } = yearsOfClasses(term)
  const years = from === to && term.name.includes(String(to)) ? ['', ''] : [` ${from}`, ` ${to}`]
  return [
    term.name,
    `${shortDay(term.classesFrom)}${years[0]} – ${shortDay(term.classesTo)}${years[1]}`,
    meetingText(meetings),
    term.timeZone !== instituteZone && zoneText(term.timeZone),
  ]
    .filter(Boolean)
    .join(' · ')
}

const conjunction = new Intl.ListFormat('en-GB')
/** `BKG 115-02 and BKG 115-03` */
export const listText = (parts: readonly string[]): string => conjunction.format(parts)

/** `in 3 days`, `tomorrow`, `12 days ago` of a number of days. */
export function daysText(days: number): string {
  if (days === 0) return 'today'
  if (Math.abs(days) === 1) return days > 0 ? 'tomorrow' : 'yesterday'
  return days > 0 ? `in ${days} days` : `${-days} days ago`
}
/** How sure a suggestion is, of a chance from 0 to 1: as often are those like it right. */
export const chanceText = (chance: number): string =>
  chance > 0.99 ? 'over 99 % sure' : `${Math.round(100 * chance)} % sure`
/** What the registrar changed in a course, in a sentence. */
export function changeText(change: Pick<RosterChangeView, 'kind' | 'count' | 'detail'>): string {
  const names = change.detail.names?.slice(0, 3).join(', ') ?? ''
  const people = `${names}${change.count > 3 ? ` and ${change.count - 3} more` : ''}`
  const sentences: Record<RosterChangeView['kind'], string> = {
    appeared: 'appeared',
    renamed: `is now ${change.detail.after}, was ${change.detail.before}`,
    meetings: `meets ${change.detail.after || 'at no known time'}, was ${change.detail.before || 'at no known time'}`,
    joined: `${people} joined`,
    dropped: `${people} dropped`,
    returned: `${people} ${change.count === 1 ? 'is' : 'are'} listed again`,
    unlisted: `${people} ${change.count === 1 ? 'is' : 'are'} no longer listed; nobody was removed here`,
    gone: 'is no longer listed; Northtide keeps it',
    cancelled: 'was cancelled by the registrar; Northtide keeps it',
    back: 'is listed again',
  }
  return sentences[change.kind]
}
/** `1.4 MB` for a number of bytes that may be small. */
export const bytesText = (bytes: number): string => (bytes < 1 ? 'nothing' : sizeText(Math.round(bytes)))

const clocks = new Map<string, Intl.DateTimeFormat>()
/** One formatter a zone is kept: making one is slow. */
function clockIn(timeZone: string | undefined): Intl.DateTimeFormat {
  const key = timeZone ?? ''
  const known = clocks.get(key)
  if (known) return known
  const clock = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'short' })
  clocks.set(key, clock)
  return clock
}
/** The zone of the institute's clock: every page tells time by it, wherever its reader sits. The session says which it is. */
let instituteZone: string | undefined
/** The year that it is there: whatever was in another is told with its year. */
let instituteYears: Years | null = null
export function tellTimeBy({ timeZone, instant }: { timeZone: string; instant: string }): void {
  instituteZone = timeZone
  const year = Number(instituteClock(instant).slice(0, 4))
  instituteYears = { from: year, to: year }
}
const wallIn = (timeZone: string | undefined, instant: string): string =>
  clockIn(timeZone).format(new Date(instant)).replace(' ', 'T')
/** Wall clock `YYYY-MM-DDTHH:MM` of an instant, by the institute's clock. */
export const instituteClock = (instant: string): string => wallIn(instituteZone, instant)
/** An instant as people read it: `Tue 5 Jan 20:00`, by the institute's clock. */
export const instantText = (instant: string): string => momentText(instituteClock(instant), instituteYears)
/** `Tue 5 Jan 2027, 20:00` of a wall time. */
export const momentInFull = (wall: string): string =>
  `${dayText(wall)} ${wall.slice(0, 4)}, ${wall.slice(11, 16)}`
/** `Halifax time` of an IANA zone. */
export const zoneText = (timeZone: string): string =>
  timeZone === 'UTC' ? 'UTC' : `${timeZone.slice(timeZone.lastIndexOf('/') + 1).replaceAll('_', ' ')} time`
type OfTerm = Pick<CourseLine, 'term'>
/** An instant beside a course is told by the clock of its own institution: with the zone, where that is not the page's. */
const besideOf = ({ term: { timeZone } }: OfTerm, instant: string): { wall: string; zone: string } =>
  timeZone === instituteZone
    ? { wall: instituteClock(instant), zone: '' }
    : { wall: wallIn(timeZone, instant), zone: ` ${zoneText(timeZone)}` }
/** `Tue 5 Jan 20:00` beside a course. */
export function instantBeside(course: OfTerm, instant: string): string {
  const { wall, zone } = besideOf(course, instant)
  return `${momentText(wall, instituteYears)}${zone}`
}
/** The same with its year, for what is read in years to come: `Tue 5 Jan 2027, 20:00`. */
export function instantInFull(course: OfTerm, instant: string): string {
  const { wall, zone } = besideOf(course, instant)
  return `${momentInFull(wall)}${zone}`
}
