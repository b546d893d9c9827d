import { z } from 'zod'
import { checkCalendar } from '../../calendar/check'
import { meeting, wallTime, type TermCalendar } from '../../calendar/schema'
import { itemFieldEntries } from '../../course/fields'
import { itemKindDefinitions } from '../../course/kinds'
import { furnishingNames } from '../../course/furniture'
import { itemKinds, itemStates, releaseNeeds } from '../../course/model'
import { graceSchema } from '../../grading/grace'
import { identifier, pointsEntry } from '../../student-data/entry'
import { courseJsonLists } from '../../student-data/student-data'
import { messageOf } from '../../message'
import { inOurWords } from '../../schema-words'
import { line, unkeptText } from '../../text'
import { present } from '../../present'
import { utf8 } from '../text'
import { FormatRefusal } from '../refusal'

const moment = wallTime.nullish()
const points = pointsEntry.nullish()
const key = identifier
const kindsInCourseJson = itemKinds.filter(kind => itemKindDefinitions[kind].inCourseJson)
const items = <T extends z.ZodRawShape>(shape: T) => z.array(z.object(shape)).default([])

const meetings = z.array(meeting.extend({ room: z.string().optional() })).default([])
const category = { identifier: key, title: z.string(), weight: points }
const item = {
  identifier: key,
  opens: moment,
  due: moment,
  closes: moment,
  points,
  category: key.nullish(),
  state: z.enum(itemStates).optional(),
  exam: z.boolean().optional(),
  kind: z.enum(kindsInCourseJson).optional(),
  settings: z.record(z.string(), z.unknown()).optional(),
}
const drops = z.int().min(0).default(0)

/**
 * Northtide's course JSON: what no standard carries for one class. Items, categories and students are named by the
 * identifiers they have in the cartridge and the roster; dates given here win over the line items'. Version 1 holds the
 * meetings, categories and items alone.
 */
const firstDocument = z.object({
  format: z.literal('northtide-course'),
  version: z.literal(1),
  /** sourcedId of the class. */
  class: key,
  meetings,
  categories: items(category),
  items: items(item),
  ...courseJsonLists,
})
const secondDocument = firstDocument.extend({
  version: z.literal(2),
  /** Who made the course: a person, or the department's template, which nobody has touched yet. */
  madeBy: z.enum(['person', 'template']).default('person'),
  /** How grades are reckoned (docs/grades.md). */
  grading: z
    .object({
      by: z.enum(['weights', 'points']).default('weights'),
      ungraded: z.enum(['skip', 'zero']).default('skip'),
      decimals: z.int().min(0).max(20).default(2),
      scale: items({ from: pointsEntry, letter: line(40) }),
    })
    .optional(),
  /** How often students may hand in later without asking. */
  grace: graceSchema.optional(),
  /** In column order. */
  categories: items({
    ...category,
    within: z.enum(['points', 'equal']).default('points'),
    dropLowest: drops,
    dropHighest: drops,
    exempt: z.boolean().default(false),
    fixed: z.boolean().default(false),
  }),
  rubrics: items({
    identifier: key,
    title: line(500),
    criteria: items({ title: line(500), levels: items({ title: line(500), points: pointsEntry }) }),
  }),
  /** Groups that work is for, by their names; nobody who is in one. */
  groups: items({ identifier: key, title: line(500) }),
  /** `opens`: the date on which a unit opens. */
  units: items({ identifier: key, fixed: z.boolean().default(false), opens: moment }),
  items: items({
    ...item,
    rubric: key.nullish(),
    group: key.nullish(),
    /** What must be so before it opens; `least`: points. */
    releases: items({
      after: key,
      needs: z.enum(releaseNeeds).default('seen'),
      least: pointsEntry.nullish(),
    }),
    ...itemFieldEntries,
    /** An empty place of a template, and the kinds that it can hold. */
    place: z.array(z.enum(itemKinds)).min(1).optional(),
    fixed: z.boolean().optional(),
    /** The grading period of its term that it is filed under, by name. */
    gradingPeriod: line(200).nullish(),
  }),
  furniture: items({
    identifier: key,
    part: z.enum(furnishingNames),
    title: line(500),
    item: key.nullish(),
    details: z.record(z.string(), line(2000)).default({}),
  }),
})
export const courseDocument = z.discriminatedUnion('version', [firstDocument, secondDocument])
export type CourseDocument = z.output<typeof secondDocument>
/** A document as the newest version has it. */
export const asNewest = (document: z.output<typeof courseDocument>): CourseDocument =>
  document.version === 2 ? document : secondDocument.parse({ ...document, version: 2 })

function parseJson(name: string, bytes: Uint8Array): unknown {
  const text = utf8(name, bytes)
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (error) {
    throw new FormatRefusal('not-json', name, { why: messageOf(error) })
  }
  const fault = unkeptText(value)
  if (fault) throw firstFault(name, [fault])
  return value
}
/** Of what is wrong with a document, the first. */
const firstFault = (
  name: string,
  faults: readonly { path: readonly PropertyKey[]; message: string }[],
): FormatRefusal => {
  const { path, message } = present(faults[0])
  return new FormatRefusal('field-wrong', name, {
    field: path.join('.') || 'the document',
    fault: message,
  })
}

/** What a JSON document is: a course, a term calendar (which has classes and a time zone), or null for anything else. @throws FormatRefusal where it is no JSON. */
export function kindOfDocument(name: string, bytes: Uint8Array): 'course-json' | 'term-calendar' | null {
  const told = z
    .object({ format: z.unknown(), classes: z.unknown(), timeZone: z.unknown() })
    .partial()
    .safeParse(parseJson(name, bytes)).data
  if (told?.format === 'northtide-course') return 'course-json'
  return told?.classes !== undefined && told.timeZone !== undefined ? 'term-calendar' : null
}
/** Reads a course JSON. @throws FormatRefusal naming the field that is wrong. */
export function readCourseDocument(name: string, bytes: Uint8Array): CourseDocument {
  const parsed = courseDocument.safeParse(parseJson(name, bytes), { error: inOurWords })
  if (!parsed.success) throw firstFault(name, parsed.error.issues)
  return asNewest(parsed.data)
}

/** Reads a term calendar. @throws FormatRefusal naming the field that is wrong. */
export function readTermCalendar(
  name: string,
  bytes: Uint8Array,
  isTimeZone: (zone: string) => boolean,
): TermCalendar {
  const { calendar, faults } = checkCalendar(parseJson(name, bytes), isTimeZone)
  if (!calendar) throw firstFault(name, faults)
  if (!calendar.id) throw firstFault(name, [{ path: ['id'], message: 'is missing: a term needs one' }])
  return calendar
}
