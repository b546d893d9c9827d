import { z } from 'zod'
import { itemKinds } from '../../course/model'
import { tracePlaceNames } from './markup'
import { traceKindNames } from './people'

/** What becomes of a trace: it is taken out, a role stands in its place, or it stays and somebody says why. */
export const traceAnswers = { remove: 'removed', role: 'becomes “a student”', keep: 'kept' } as const
export type TraceAnswer = keyof typeof traceAnswers
export const traceAnswerNames = Object.keys(traceAnswers) as [TraceAnswer, ...TraceAnswer[]]

/** The things of a course in which traces are looked for. */
export const tracedEntities = ['item', 'unit', 'category', 'rubric', 'group', 'furnishing'] as const
export type TracedEntity = (typeof tracedEntities)[number]

/** A name, address or number of a student in what a course holds, in its context; the same words in one place are told once. */
export const traceSchema = z.object({
  /** UUIDv5 of the thing, the place in it and the words: the same in every course that holds the thing. */
  id: z.uuid(),
  /** Lineage key of the thing, and which source it is of. */
  on: z.string(),
  entity: z.enum(tracedEntities),
  side: z.int().min(0),
  title: z.string(),
  itemKind: z.enum(itemKinds).nullable(),
  place: z.enum(tracePlaceNames),
  paragraph: z.int().nullable(),
  before: z.string(),
  text: z.string(),
  after: z.string(),
  count: z.int().min(1),
  kind: z.enum(traceKindNames),
  /** How many of each kind, where all that a table holds is told at once. */
  kinds: z.partialRecord(z.enum(traceKindNames), z.int()).nullable(),
  isStrong: z.boolean(),
  /** How many of the roster it may be. */
  people: z.int().min(1),
  /** Whether one of them is on the new roster too, or teaches. */
  isAlsoHere: z.boolean(),
  can: z.array(z.enum(traceAnswerNames)),
  /** What happens unless somebody says otherwise; null: somebody must say. */
  proposed: z.enum(traceAnswerNames).nullable(),
})
export type Trace = z.infer<typeof traceSchema>

/** A word that is somebody's name and was passed over, and why. */
export const passedOverReasons = {
  ordinary: 'an ordinary word here',
  course: 'a word of this course',
  staff: 'also the name of teaching staff',
} as const
/** What was looked through: how much of what, for whom, and what could not be. */
export const lookedSchema = z.object({
  things: z.array(z.object({ one: z.string(), many: z.string(), count: z.int() })),
  students: z.int(),
  alsoHere: z.int(),
  /** Assignments that a similarity check looks at: each comes under a new identity. */
  similarity: z.int().default(0),
  passedOver: z.array(
    z.object({
      word: z.string(),
      why: z.enum(Object.keys(passedOverReasons) as ['ordinary', 'course', 'staff']),
    }),
  ),
  notLooked: z.array(z.object({ title: z.string(), why: z.string() })),
})
export type Looked = z.infer<typeof lookedSchema>

/** What somebody decided of a trace. */
export const traceDecision = z.object({
  does: z.enum(traceAnswerNames),
  /** Why it is kept. */
  because: z.string().trim().max(200).default(''),
  by: z.string().max(200).default(''),
})
export type TraceDecision = z.infer<typeof traceDecision>
export type TraceDecisions = Readonly<Record<string, TraceDecision>>

/** What happens to a trace: what was decided, where that can be done, else what is proposed; null: somebody must say. */
export function answerOf(trace: Trace, decisions: TraceDecisions): TraceAnswer | null {
  const decided = decisions[trace.id]?.does
  return decided && trace.can.includes(decided) ? decided : trace.proposed
}
/** The words that stand instead of a name: with a capital where a sentence begins. */
export const roleFor = (before: string): string =>
  /(^|[.!?:…]["’”)]?\s+)$/.test(before) ? 'A student' : 'a student'
/** What stands in a text where a trace was. */
export const insteadOf = (answer: TraceAnswer, before: string): string =>
  answer === 'role' ? roleFor(before) : ''
