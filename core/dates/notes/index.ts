import { dayOf, type Day } from '../../calendar/day'
import { meetingDays } from '../../calendar/term'
import { inClosure } from './in-closure'
import type { Found, NoteContext, StandingItem } from './note'
import { offMeeting } from './off-meeting'
import { outOfOrder } from './out-of-order'
import { outsideTerm } from './outside-term'
import { outsideWindows } from './outside-windows'

export type { StandingItem } from './note'

/** Every way in which dates that stand are looked at, by name. A new one is its own file and a line here. */
const noteChecks = {
  'outside-term': outsideTerm,
  'in-closure': inClosure,
  'out-of-order': outOfOrder,
  'off-meeting': offMeeting,
  'outside-windows': outsideWindows,
}
export type NoteCode = keyof typeof noteChecks
export interface Note extends Found {
  readonly code: NoteCode
}
export const shortNote = (code: NoteCode): string => noteChecks[code].short

/** Of a kind's due dates so many must there be, and so large a part of them fall on meeting days, that another day is odd. */
const enough = { items: 3, part: 0.75 }
function kindsOnMeetings(items: readonly StandingItem[], isMeetingDay: (day: Day) => boolean): Set<string> {
  const kinds = new Map<string, { all: number; on: number }>()
  for (const { kind, due } of items) {
    if (due === null) continue
    const count = kinds.get(kind) ?? { all: 0, on: 0 }
    count.all++
    if (isMeetingDay(dayOf(due))) count.on++
    kinds.set(kind, count)
  }
  const found = [...kinds].filter(([, { all, on }]) => all > enough.items && on >= all * enough.part)
  return new Set(found.map(([kind]) => kind))
}

/**
 * What is to be looked at in the dates of items, by item: of dates set by hand, and of dates changed in a shell. `isLooked`
 * chooses the items; all of them tell what is usual. Notes change nothing and bar nothing.
 */
export function notesOf(
  items: readonly StandingItem[],
  context: Omit<NoteContext, 'kindsOnMeetings' | 'isMeetingDay'>,
  isLooked: (item: StandingItem) => boolean = () => true,
): Map<string, Note[]> {
  const days = new Set(meetingDays(context.term, context.meetings))
  const isMeetingDay = (day: Day): boolean => days.has(day)
  const notes = new Map<string, Note[]>()
  const looked = items.filter(isLooked)
  if (looked.length === 0) return notes
  const whole = { ...context, isMeetingDay, kindsOnMeetings: kindsOnMeetings(items, isMeetingDay) }
  for (const item of looked) {
    const found = Object.entries(noteChecks).flatMap(([code, check]) =>
      check.look(item, whole).map(each => ({ ...each, code: code as NoteCode })),
    )
    if (found.length > 0) notes.set(item.id, found)
  }
  return notes
}
