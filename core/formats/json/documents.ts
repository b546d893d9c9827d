import { z } from 'zod'
import { checkCalendar } from '../../calendar/check'
import { meeting, wallTime, type TermCalendar } from '../../calendar/schema'
import { itemKindDefinitions } from '../../course/kinds'
import { itemKinds, itemStates } from '../../course/model'
import { identifier, pointsText } from '../../student-data/entry'
import { courseJsonLists } from '../../student-data/student-data'
import { utf8 } from '../text'
import { FormatRefusal } from '../findings'

const moment = wallTime.nullish()
const points = pointsText.nullish()
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
  try {
    return JSON.parse(text)
  } catch (error) {
    throw new FormatRefusal(name, `is not JSON (${(error as Error).message})`)
  }
}
const firstIssue = (error: z.ZodError): string =>
  `${error.issues[0]!.path.join('.') || 'the document'}: ${error.issues[0]!.message}`

/** Reads a course JSON. @throws FormatRefusal naming the field that is wrong. */
export function readCourseDocument(name: string, bytes: Uint8Array): CourseDocument {
  const parsed = courseDocument.safeParse(parseJson(name, bytes))
  if (!parsed.success) throw new FormatRefusal(name, firstIssue(parsed.error))
  return parsed.data
}

/** Reads a term calendar. @throws FormatRefusal naming the field that is wrong. */
export function readTermCalendar(
  name: string,
  bytes: Uint8Array,
  isTimeZone: (zone: string) => boolean,
): TermCalendar {
  const { calendar, faults } = checkCalendar(parseJson(name, bytes), isTimeZone)
  if (!calendar)
    throw new FormatRefusal(name, `${faults[0]!.path.join('.') || 'the document'}: ${faults[0]!.message}`)
  if (!calendar.id) throw new FormatRefusal(name, 'id: is missing: a term needs one')
  return calendar
}
