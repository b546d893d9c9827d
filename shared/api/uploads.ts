import { z } from 'zod'
import { filledLine } from '../../core/text'
import { civilDate } from '../../core/calendar/schema'
import { findingCodes } from '../../core/formats/finding-kinds'
import { cartridgeKinds } from '../../core/course/kind'
import { fileFormats } from '../../core/formats/report'
import { tableNames } from '../../core/formats/oneroster/tables'
import { id } from './courses'
import { courseImport, saidImport } from './gathering'

export const findingReply = z.object({
  severity: z.enum(['error', 'warning', 'note']),
  where: z.string(),
  message: z.string(),
  code: z.enum(findingCodes),
  about: z.literal('columns').optional(),
  count: z.int().optional(),
})
const outlineKind = z.enum(['unit', ...cartridgeKinds])
/** A line of the outline, in order, with how deep it lies. */
export const outlineLine = z.object({ title: z.string(), kind: outlineKind, depth: z.int() })
export const columnRoles = z.object({
  title: z.int().min(0),
  first: z.int().min(0),
  last: z.int().min(0).nullable(),
  order: z.enum(['day-month', 'month-day']),
})
const table = z.object({
  header: z.array(z.string()).readonly(),
  headerRow: z.int(),
  rows: z.array(z.object({ number: z.int(), cells: z.array(z.string()).readonly() })).readonly(),
  roles: columnRoles,
  ambiguous: z.boolean(),
})
export const calendarEvent = z.object({ title: z.string(), firstDay: z.string(), lastDay: z.string() })

export const uploadState = z.enum([
  'waiting',
  'reading',
  'read',
  'refused',
  'failed',
  'importing',
  'imported',
])
export const uploadLine = z.object({
  id,
  name: z.string(),
  size: z.int(),
  state: uploadState,
  arrivedAt: z.string(),
})
export const uploadReply = uploadLine.extend({
  /** How far the work is, in bytes or events. */
  progress: z.object({ done: z.int(), total: z.int() }),
  problem: z.string().nullable(),
  report: z
    .object({
      format: z.enum(fileFormats).nullable(),
      title: z.string().nullable(),
      version: z.string().nullable(),
      findings: z.array(findingReply),
      outline: z.array(outlineLine),
      outlineLeft: z.int(),
      counts: z.record(z.string(), z.int()),
      events: z.array(calendarEvent),
      eventsLeft: z.int(),
      table: table.nullable(),
      /** Tables of a roster bundle that its manifest says are not there: they can be brought in all the same. */
      offered: z.array(z.enum(tableNames)),
    })
    .nullable(),
  outcome: z
    .object({
      courseId: id.optional(),
      /** The plan that compares the file with the course. */
      planId: id.optional(),
      text: z.string(),
      findings: z.array(findingReply),
    })
    .nullable(),
  /** What the person may do with it. */
  may: z.object({
    keepAsCourse: z.boolean(),
    importRoster: z.boolean(),
    addClosures: z.boolean(),
    importCalendar: z.boolean(),
    importCourse: z.boolean(),
    /** Give what it says of items to a course that is there. */
    giveToCourse: z.boolean(),
    spreadLineItems: z.boolean(),
  }),
  terms: z.array(
    z.object({ code: z.string(), name: z.string(), classesFrom: z.string(), classesTo: z.string() }),
  ),
  /** The term that is offered first. */
  term: z.string().nullable(),
})
export type UploadReply = z.infer<typeof uploadReply>
export const uploadsReply = z.object({ uploads: z.array(uploadLine), limit: z.int() })
export type UploadsReply = z.infer<typeof uploadsReply>

const label = (what: string, most: number) => filledLine(most, `Give ${what}.`)
export const importRequest = z.discriminatedUnion('as', [
  courseImport,
  saidImport,
  /** A bundle's line items and results, to the courses of which one may write them. */
  z.object({ as: z.literal('line-items') }),
  z.object({
    as: z.literal('roster'),
    /** Tables to read though the manifest says that they are not there. */
    tables: z.array(z.enum(tableNames)).default([]),
  }),
  /** A term calendar or a course, in Northtide's JSON: all it says stands in the file. */
  z.object({ as: z.literal('calendar') }),
  z.object({ as: z.literal('course-json') }),
  z.object({
    as: z.literal('closures'),
    term: label('the term', 190),
    events: z
      .array(z.object({ title: label('each day a name', 500), firstDay: civilDate, lastDay: civilDate }))
      .min(1, 'Choose at least one.')
      .max(500, 'At most 500 at once.'),
  }),
])
export type ImportRequest = z.output<typeof importRequest>
/** As it is asked for: what goes without saying may be left out. */
export type ImportWish = z.input<typeof importRequest>
