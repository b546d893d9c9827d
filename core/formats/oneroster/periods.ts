import { present } from '../../present'
import { isTime } from '../../calendar/day'
import type { Meeting } from '../../calendar/schema'

const days = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']

/**
 * The weekly meetings in the `periods` column of classes.csv: `MO 09:30-10:20,WE 09:30-10:20`. OneRoster 1.1 leaves the text of a
 * period open; weekdays are spelt as RFC 5545 does (BYDAY), times as ISO 8601. An empty column says nothing of meetings: null.
 * @returns the meetings in the order of the week, or what is wrong with the text.
 */
export function meetingsOfPeriods(text: string): Meeting[] | null | { problem: string } {
  if (text.trim() === '') return null
  const meetings: Meeting[] = []
  for (const period of text
    .split(',')
    .map(entry => entry.trim())
    .filter(Boolean)) {
    const [, day, start, end] = /^([A-Z]{2})\s+(\d\d:\d\d)-(\d\d:\d\d)$/.exec(period.toUpperCase()) ?? []
    const weekday = days.indexOf(day ?? '') + 1
    if (!weekday || !isTime(present(start)) || !isTime(present(end)) || present(end) <= present(start))
      return { problem: `${JSON.stringify(period.slice(0, 40))} is not a meeting such as MO 09:30-10:20` }
    meetings.push({ weekday: weekday as Meeting['weekday'], start: present(start), end: present(end) })
  }
  return meetings.sort((a, b) => a.weekday - b.weekday || a.start.localeCompare(b.start))
}
/** The same as text, for a registrar's bundle. */
export const periodsOf = (meetings: readonly Pick<Meeting, 'weekday' | 'start' | 'end'>[]): string =>
  meetings.map(({ weekday, start, end }) => `${days[weekday - 1]} ${start}-${end}`).join(',')
