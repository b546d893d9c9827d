import type { Meeting } from '../calendar/schema'
import { dayOf, type Day } from '../calendar/day'
import { meetingDays, type Term } from '../calendar/term'
import type { OutlineNode } from '../course/outline'
import type { Knowledge } from './check'
import { contentTwice } from './content-twice'
import { contentYear } from './content-year'
import { datesClosure } from './dates-closure'
import { datesCrowd } from './dates-crowd'
import { datesExams } from './dates-exams'
import { datesMidnight } from './dates-midnight'
import { datesNoClass } from './dates-no-class'
import { datesNoTerm } from './dates-no-term'
import { datesOrder } from './dates-order'
import { gradeCategory } from './grade-category'
import { linkLost } from './link-lost'
import { otherMode } from './looks/other-mode'
import { unseen } from './looks/unseen'
import { untouched } from './looks/untouched'
import { usedBefore } from './looks/used-before'
import { placeEmpty } from './place-empty'
import { titleCopy } from './title-copy'
import { titleTwice } from './title-twice'

/** How a course’s dates are looked at, one by one. A new check is its own file and a line in one of these lists. */
export const dateChecks = {
  'dates.no-term': datesNoTerm,
  'dates.closure': datesClosure,
  'dates.order': datesOrder,
  'dates.no-class': datesNoClass,
  'dates.midnight': datesMidnight,
}
/** How all else of a course is looked at, as it stands or will once a plan is run. */
export const courseChecks = {
  'dates.crowd': datesCrowd,
  'dates.exams': datesExams,
  'grade.category': gradeCategory,
  'link.lost': linkLost,
  'title.copy': titleCopy,
  'title.twice': titleTwice,
  'place.empty': placeEmpty,
}
/** How an old course is looked at before it comes, in the order in which a page tells it. Nothing stays behind for it unless a person says so. */
export const sourceChecks = {
  'source.used-before': usedBefore,
  'source.untouched': untouched,
  'source.unseen': unseen,
  'content.year': contentYear,
  'content.twice': contentTwice,
  'source.other-mode': otherMode,
}
export type SourceCheck = keyof typeof sourceChecks
export const sourceCheckNames = Object.keys(sourceChecks) as SourceCheck[]

/** Of a kind's due dates so many must there be, and so large a part of them fall on meeting days, that another day is odd. */
const enough = { items: 3, part: 0.75 }
function kindsOnMeetings(
  items: readonly Pick<OutlineNode, 'kind' | 'due'>[],
  isMeetingDay: (day: Day) => boolean,
): Set<string> {
  const kinds = new Map<string, { all: number; on: number }>()
  for (const { kind, due } of items) {
    if (due === null) continue
    const count = kinds.get(kind ?? '') ?? { all: 0, on: 0 }
    count.all++
    if (isMeetingDay(dayOf(due))) count.on++
    kinds.set(kind ?? '', count)
  }
  const found = [...kinds].filter(([, { all, on }]) => all > enough.items && on >= all * enough.part)
  return new Set(found.map(([kind]) => kind))
}
/** What checks must know of a calendar. `items`: all of the course, which tell what is usual. */
export function calendarKnown(
  items: readonly Pick<OutlineNode, 'kind' | 'due'>[],
  given: { term: Term; meetings: readonly Meeting[]; window: Knowledge['calendar']['window'] },
): Knowledge['calendar'] {
  const days = new Set(meetingDays(given.term, given.meetings))
  const isMeetingDay = (day: Day): boolean => days.has(day)
  return { ...given, isMeetingDay, kindsOnMeetings: kindsOnMeetings(items, isMeetingDay) }
}
