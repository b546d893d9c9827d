import { z } from 'zod'
import {
  firstYear,
  isCalendarDay,
  isDate,
  isDateTime,
  isTime,
  lastYear,
  type WallTime,
  type Weekday,
} from './day'

export type { WallTime }

/** Why a text is no date that may stand here. */
const dateFault = (text: string): string =>
  isCalendarDay(text) ? `${text} lies outside the years ${firstYear} to ${lastYear}` : `${text} is not a date`
/** A civil date that exists. */
export const civilDate = z
  .string({ error: 'must be a date such as 2027-01-31' })
  .refine(isDate, { error: issue => dateFault(String(issue.input)) })
  .meta({
    description: `A civil date that exists, of the years ${firstYear} to ${lastYear}.`,
    pattern: '^\\d{4}-\\d{2}-\\d{2}$',
  })
/** A wall-clock time `HH:MM`. */
export const clockTime = z
  .string({ error: 'must be a time such as 23:59' })
  .refine(isTime, { error: issue => `${String(issue.input)} is not a time` })
  .meta({ description: 'Wall-clock time.', pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' })
/** A wall-clock date-time `YYYY-MM-DDTHH:MM`, no seconds, no zone. */
export const wallTime = z
  .string({ error: 'must be a date and time such as 2027-01-31T23:59' })
  .refine(isDateTime, {
    error: issue => {
      const text = String(issue.input)
      if (isDate(text)) return `${text} has no time`
      const date = text.slice(0, 10)
      return isDate(date) ? `${text} is not a date and time` : dateFault(date)
    },
  })
  .meta({
    description: `Wall-clock date and time in the term’s zone, of the years ${firstYear} to ${lastYear}.`,
    pattern: '^\\d{4}-\\d{2}-\\d{2}T([01]\\d|2[0-3]):[0-5]\\d$',
  })
  .brand<'WallTime'>()
export const weekdayNumber = z.union(
  [z.literal(1), z.literal(2), z.literal(3), z.literal(4), z.literal(5), z.literal(6), z.literal(7)],
  { error: 'must be a weekday from 1 (Monday) to 7 (Sunday)' },
)

const label = z.string({ error: 'must be a text' })
const range = <T extends z.ZodRawShape>(more: T) =>
  z.object({ from: civilDate, to: civilDate, ...more }).check(context => {
    const { from, to } = context.value as { from: string; to: string }
    if (from > to)
      context.issues.push({
        code: 'custom',
        path: ['to'],
        message: `${to} is before ${from}, where the range starts`,
        input: to,
      })
  })
/** From one civil date to another, both ends included. */
export const civilRange = range({})
/** An absent or null list is an empty one. */
const list = <T extends z.ZodType>(entry: T) =>
  z
    .array(entry, { error: 'must be a list' })
    .nullish()
    .transform(value => value ?? [])

/**
 * A term calendar as `docs/dates.md` defines it. Shape and single ranges are checked here; what needs the whole calendar
 * (a class day exists, exams follow classes, nothing twice) by `checkCalendar`.
 */
export const termCalendar = z.object({
  id: label.nullish().transform(value => value ?? ''),
  name: label.nullish().transform(value => value ?? ''),
  timeZone: z.string({ error: 'is missing: name the IANA zone, such as America/Halifax' }),
  classes: civilRange,
  exams: civilRange.nullish().transform(value => value ?? null),
  teachingWeekdays: z
    .array(weekdayNumber, { error: 'must be a list of weekdays' })
    .nullish()
    .transform((value): Weekday[] => value ?? [1, 2, 3, 4, 5]),
  weekStart: weekdayNumber.nullish().transform((value): Weekday => value ?? 1),
  closures: list(
    range({
      name: label.nullish().transform(value => value ?? ''),
      kind: label.nullish().transform(value => value ?? ''),
    }),
  ),
  runsAs: list(
    z.object({
      date: civilDate,
      weekday: weekdayNumber,
      name: label.nullish().transform(value => value ?? ''),
    }),
  ),
  milestones: list(
    z.object({ key: label, date: civilDate, name: label.nullish().transform(value => value ?? '') }),
  ),
  gradingPeriods: list(
    z.looseObject({ name: label.nullish(), from: civilDate.nullish(), to: civilDate.nullish() }),
  ),
})
export type TermCalendar = z.infer<typeof termCalendar>

/** One meeting of a section's week: times are wall clock, the weekday is that of the timetable. */
export const meeting = z.object({ weekday: weekdayNumber, start: clockTime, end: clockTime })
export type Meeting = z.infer<typeof meeting>
