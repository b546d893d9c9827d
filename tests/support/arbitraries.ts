import fc from 'fast-check'
import { dayOf, isoOf, minuteOf, wallOf, type WallTime } from '../../core/calendar/day'
import { checkCalendar } from '../../core/calendar/check'
import { meeting, termCalendar, type Meeting, type TermCalendar } from '../../core/calendar/schema'
import type { DatedItem } from '../../core/dates/plan'

const weekday = fc.integer({ min: 1, max: 7 }) as fc.Arbitrary<1 | 2 | 3 | 4 | 5 | 6 | 7>
export const anyZone = fc.constantFrom(
  'America/Halifax',
  'Europe/Berlin',
  'Australia/Lord_Howe',
  'UTC',
  'Asia/Kolkata',
  'America/Santiago',
)

/** A term calendar that makes sense: some weeks of classes with closures, changed timetables, perhaps exams and milestones. */
export const anyCalendar: fc.Arbitrary<TermCalendar> = fc
  .record({
    start: fc.integer({ min: dayOf('2024-01-01'), max: dayOf('2028-12-31') }),
    length: fc.integer({ min: 6, max: 130 }),
    exams: fc.option(fc.tuple(fc.integer({ min: 1, max: 10 }), fc.integer({ min: 0, max: 14 }))),
    teachingWeekdays: fc.option(fc.uniqueArray(weekday, { minLength: 1, maxLength: 7 })),
    weekStart: fc.constantFrom<(1 | 6 | 7)[]>(1, 6, 7),
    closures: fc.array(fc.tuple(fc.integer({ min: -10, max: 140 }), fc.integer({ min: 0, max: 9 })), {
      maxLength: 4,
    }),
    runsAs: fc.uniqueArray(fc.tuple(fc.integer({ min: 0, max: 130 }), weekday), {
      maxLength: 3,
      selector: ([day]) => day,
    }),
    milestone: fc.option(fc.integer({ min: -20, max: 150 })),
    timeZone: anyZone,
  })
  .map(({ start, length, exams, teachingWeekdays, weekStart, closures, runsAs, milestone, timeZone }) =>
    termCalendar.parse({
      id: 't',
      name: 'Some term',
      timeZone,
      weekStart,
      teachingWeekdays,
      classes: { from: isoOf(start), to: isoOf(start + length) },
      exams: exams && {
        from: isoOf(start + length + exams[0]),
        to: isoOf(start + length + exams[0] + exams[1]),
      },
      closures: closures.map(([from, days], at) => ({
        from: isoOf(start + from),
        to: isoOf(start + from + days),
        name: `Closure ${at + 1}`,
        kind: 'holiday',
      })),
      runsAs: runsAs.map(([day, as]) => ({ date: isoOf(start + day), weekday: as, name: 'Changed day' })),
      milestones:
        milestone === null ? [] : [{ key: 'add-drop', date: isoOf(start + milestone), name: 'Add or drop' }],
    }),
  )
  .filter(calendar => checkCalendar(calendar, () => true).calendar !== null)

export const anyMeetings: fc.Arbitrary<Meeting[]> = fc.array(
  fc
    .record({
      weekday,
      start: fc.constantFrom('08:30', '09:30', '13:00'),
      end: fc.constantFrom('14:15', '15:45'),
    })
    .map(entry => meeting.parse(entry)),
  { maxLength: 4 },
)

/** Items whose dates lie around a calendar, in any order. */
export const itemsAround = (calendar: TermCalendar, ordered = false): fc.Arbitrary<DatedItem[]> => {
  const first = dayOf(calendar.classes.from)
  const last = dayOf(calendar.classes.to)
  const moment = fc
    .tuple(
      fc.integer({ min: first - 15, max: last + 30 }),
      fc.constantFrom('00:00', '02:30', '08:00', '23:59'),
    )
    .map(([day, time]) => wallOf(day, minuteOf(time, 0)))
  return fc
    .array(fc.tuple(fc.option(moment), fc.option(moment), fc.option(moment)), { minLength: 1, maxLength: 12 })
    .map(list =>
      list.map(([opens, due, closes], at) => {
        if (ordered) {
          const sorted = [opens, due, closes].filter(value => value !== null).sort()
          const next = (value: WallTime | null): WallTime | null => value && (sorted.shift() ?? null)
          return {
            id: `i${at}`,
            kind: 'assignment',
            unit: null,
            opens: next(opens),
            due: next(due),
            closes: next(closes),
          }
        }
        return { id: `i${at}`, kind: 'assignment', unit: null, opens, due, closes }
      }),
    )
}
