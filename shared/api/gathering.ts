import { z } from 'zod'
import { civilDate } from '../../core/calendar/schema'
import { dayOf } from '../../core/calendar/day'
import { saidFields, sayingKinds } from '../../core/gather/saying'
import { line } from '../../core/text'
import { id } from './courses'

const key = z.string().max(1000)
/** What is decided of the files that come in together. */
const gathered = {
  /** Files that say more of the course. */
  beside: z.array(id).max(20, 'At most 20 files at once.').default([]),
  /** Lines of these files paired by hand (`sayingKey`), each with an item's identifier; null: with none. */
  pairs: z.record(key, key.nullable()).default({}),
  /** Which file is believed of a field of an item (`fieldKey`), where that is not the one that wins unasked. */
  choices: z.record(key, z.string().max(200)).default({}),
  /** Tables whose days and months are meant in the other order than the likelier one. */
  otherOrder: z.array(id).max(20).default([]),
}
/**
 * A package as a course, alone or together with other files of the person: a new one in a term, or in one of its own (`span`); or into a course
 * that is there (`into`): a class that holds nothing yet gets it, any other is compared with it.
 */
export const courseImport = z
  .object({
    as: z.literal('course'),
    into: id.nullable().default(null),
    term: line(190).default(''),
    /** First and last day of classes, where no term here is the one it was taught in. */
    span: z
      .object({
        from: civilDate,
        to: civilDate,
        closures: z
          .array(z.object({ from: civilDate, to: civilDate, name: line(500) }))
          .max(500, 'At most 500 days without classes.')
          .default([]),
      })
      .nullable()
      .default(null),
    /** The file that is the calendar of the term it was taught in, where that is no term here. */
    calendar: id.nullable().default(null),
    code: line(40).default(''),
    section: line(40).default(''),
    title: line(500).default(''),
    ...gathered,
  })
  .check(context => {
    const { into, term, span, calendar, title } = context.value
    const fault = (path: string, message: string): void =>
      void context.issues.push({ code: 'custom', path: [path], message, input: context.value })
    if (into !== null) return
    if (title === '') fault('title', 'Give a title.')
    if (!span && !calendar && term === '') fault('term', 'Give the term.')
    if (span && dayOf(span.to) - dayOf(span.from) < 6)
      fault('span', 'The last day of classes is at least a week after the first.')
  })
export type CourseImport = z.output<typeof courseImport>
/** What files without a package say of the items of a course that is there. */
export const saidImport = z.object({ as: z.literal('said'), into: id, ...gathered })
export type SaidImport = z.output<typeof saidImport>

const values = z.partialRecord(z.enum(saidFields), z.string().nullable())
const sayings = z.array(
  z.object({
    kind: z.enum(sayingKinds),
    file: z.string(),
    where: z.string(),
    identifier: z.string().nullable(),
    title: z.string(),
    values,
  }),
)
const far = z.array(z.object({ where: z.string(), message: z.string() }))
/** For which term, or from which day to which, and for which course one looks at what files say. */
export const gatherAsked = z.object({
  term: z.string().max(190).optional(),
  from: civilDate.optional(),
  to: civilDate.optional(),
  course: id.optional(),
})
export type GatherAsked = z.output<typeof gatherAsked>
/** How a course that is there shows that a package is of it: by its class in another file, its items, its code, its title; or somebody chose it. */
export const belongsWays = ['class', 'items', 'code', 'title', 'chosen'] as const
/** Items of a package, and what other files say of them: what `core/gather` puts together. */
export const gatherReply = z.object({
  /** Courses that are there to which the package may belong, the surest first. */
  courses: z.array(
    z.object({
      id,
      name: z.string(),
      term: z.string(),
      /** It holds nothing yet: the package fills it. */
      isEmpty: z.boolean(),
      why: z.enum(belongsWays),
      /** How many of the package's items it has. */
      items: z.int(),
    }),
  ),
  items: z.array(
    z.object({
      identifier: z.string(),
      resource: z.string().nullable(),
      title: z.string(),
      kind: z.string(),
      values,
      /** Fields that somebody changed in the course since a file brought them. */
      touched: z.array(z.enum(saidFields)).default([]),
    }),
  ),
  files: z.array(
    z.object({
      id,
      name: z.string(),
      as: z.enum(['line-items', 'course-json', 'sheet']),
      sayings,
      /** Of a table whose numbers can be read with the day or the month first: which came first, and what it says the other way round. */
      order: z.enum(['day-month', 'month-day']).nullable(),
      other: z.object({ sayings, far }).nullable(),
      /** Dates that cannot be meant: they stay out. */
      far,
      unread: z.array(z.object({ row: z.int(), title: z.string(), column: z.string(), cell: z.string() })),
    }),
  ),
  /** Term calendars among the files: one may be the term that the course was taught in. */
  calendars: z.array(
    z.object({ id, file: z.string(), name: z.string(), code: z.string(), from: civilDate, to: civilDate }),
  ),
  /** Days that calendars and tables among the files name: some may be days without classes of that term. */
  days: z.array(
    z.object({
      id,
      file: z.string(),
      events: z.array(z.object({ title: z.string(), firstDay: z.string(), lastDay: z.string() })),
    }),
  ),
})
export type GatherReply = z.infer<typeof gatherReply>
