import { z } from 'zod'
import { checkCalendar } from '../../calendar/check'
import { meeting, wallTime, type TermCalendar } from '../../calendar/schema'
import { itemKindDefinitions } from '../../course/kinds'
import { itemKinds, itemStates } from '../../course/model'
import { identifier, pointsEntry } from '../../student-data/entry'
import { courseJsonLists } from '../../student-data/student-data'
import { messageOf } from '../../message'
import { inOurWords } from '../../schema-words'
import { unkeptText } from '../../text'
import { there } from '../../there'
import { utf8 } from '../text'
import { FormatRefusal } from '../refusal'

const moment = wallTime.nullish()
const points = pointsEntry.nullish()
const key = identifier
const kindsInCourseJson = itemKinds.filter(kind => itemKindDefinitions[kind].inCourseJson)
const items = <T extends z.ZodRawShape>(shape: T) => z.array(z.object(shape)).default([])

/**
 * Northtide's course JSON: what no standard carries for one class. Items, categories and students are named by the
 * identifiers they have in the cartridge and the roster; dates given here win over the line items'.
 */
export const courseDocument = z.object({
  format: z.literal('northtide-course'),
  version: z.literal(1),
  /** sourcedId of the class. */
  class: key,
  meetings: z.array(meeting.extend({ room: z.string().optional() })).default([]),
  categories: items({ identifier: key, title: z.string(), weight: points }),
  items: items({
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
  }),
  ...courseJsonLists,
})
export type CourseDocument = z.infer<typeof courseDocument>

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
  const { path, message } = there(faults[0])
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
  return parsed.data
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
