import { z } from 'zod'
import { itemKinds } from '../../course/model'
import { tracePlaceNames } from './markup'
import { traceKindNames } from './people'

/** What becomes of a trace: it is taken out, a role stands in its place, or it stays and somebody says why. */
export const traceAnswers = { remove: 'removed', role: 'becomes “a student”', keep: 'kept' } as const
export type TraceAnswer = keyof typeof traceAnswers
export const traceAnswerNames = Object.keys(traceAnswers) as [TraceAnswer, ...TraceAnswer[]]

/** The things of a course in which traces are looked for. */
export const tracedEntities = ['item', 'unit', 'category', 'rubric', 'group', 'furnishing', 'rules'] as const
export type TracedEntity = (typeof tracedEntities)[number]

/** How a search weighs what it found: a student; perhaps one; probably only a word or somebody else, which bars nothing. */
export const traceWeights = ['sure', 'ask', 'doubtful'] as const

/**
 * One way of editing a trace: what goes, and what stands there instead. `part`: which text of the thing (`''`: its only one; of a file with
 * several, the name of one; of settings and details, a JSON Pointer, RFC 6901); `from`, `to`: places in that text as it is stored.
 */
export const traceEdit = z.object({
  /** So many letters before the words, and after them, go with them. */
  lead: z.int().min(0),
  tail: z.int().min(0),
  text: z.string(),
  at: z.array(z.object({ part: z.string(), from: z.int(), to: z.int() })),
})
export type TraceEdit = z.infer<typeof traceEdit>

/** A name, address or number of a student where it stands in what a course holds, with what would be edited there. */
export const traceSchema = z.object({
  /** UUIDv5 of the thing, the place in it, the words, what stands around them, and which of several equal ones it is: the same in every course that holds the thing. */
  id: z.uuid(),
  /** UUIDv5 of the thing, the place and the words alone: what was decided of all of them at once. */
  wordId: z.uuid(),
  /** Lineage key of the thing, and which source it is of. */
  on: z.string(),
  entity: z.enum(tracedEntities),
  side: z.int().min(0),
  title: z.string(),
  itemKind: z.enum(itemKinds).nullable(),
  place: z.enum(tracePlaceNames),
  paragraph: z.int().nullable(),
  /** Of what stands in a file within the thing's file: which. */
  file: z.string().nullable(),
  before: z.string(),
  text: z.string(),
  after: z.string(),
  /** How many hits it stands for: more than one where all that a table holds is told at once. */
  count: z.int().min(1),
  kind: z.enum(traceKindNames),
  /** How many of each kind, where all that a table holds is told at once. */
  kinds: z.partialRecord(z.enum(traceKindNames), z.int()).nullable(),
  weight: z.enum(traceWeights),
  /** How many of the roster it may be. */
  people: z.int().min(1),
  /** Whether one of them is on the new roster too, or teaches. */
  isAlsoHere: z.boolean(),
  can: z.array(z.enum(traceAnswerNames)),
  /** What happens unless somebody says otherwise; null: somebody must say. */
  proposed: z.enum(traceAnswerNames).nullable(),
  edits: z.object({ remove: traceEdit, role: traceEdit.nullable() }),
})
export type Trace = z.infer<typeof traceSchema>

/** A word that is somebody's name and was passed over, and why. */
export const passedOverReasons = {
  ordinary: 'an ordinary word here',
  course: 'a word of this course',
  staff: 'also the name of teaching staff',
} as const
/** A file that could not be looked into. */
export const unseenFile = z.object({
  /** UUIDv5 of the thing and its content: what is decided holds as long as the file is the same. */
  id: z.uuid(),
  on: z.string(),
  side: z.int().min(0),
  title: z.string(),
  /** What the file is called where that is not the title, and which file in it; null: the title says it. */
  file: z.string().nullable(),
  why: z.string(),
  /** Bytes. */
  size: z.int().min(0),
})
export type UnseenFile = z.infer<typeof unseenFile>
/** What was looked through: how much of what, for whom, and what could not be. */
export const lookedSchema = z.object({
  things: z.array(z.object({ one: z.string(), many: z.string(), count: z.int() })),
  students: z.int(),
  alsoHere: z.int(),
  /** Of how many the roster has a phone number. */
  phones: z.int().default(0),
  /** Assignments that a similarity check looks at: each comes under a new identity. */
  similarity: z.int().default(0),
  passedOver: z.array(
    z.object({
      word: z.string(),
      why: z.enum(Object.keys(passedOverReasons) as ['ordinary', 'course', 'staff']),
    }),
  ),
  unseen: z.array(unseenFile),
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

type Decided = Pick<Trace, 'id' | 'wordId' | 'can'>
/** What somebody decided of a trace: of this one, else of all like it in the thing, as plans said before each was told by itself. What cannot be done with it is no decision. */
export function decisionOf({ id, wordId, can }: Decided, decisions: TraceDecisions): TraceDecision | null {
  const decided = decisions[id] ?? decisions[wordId]
  return decided && can.includes(decided.does) ? decided : null
}
/** What happens to a trace: what was decided, else what is proposed; null: somebody must say. */
export const answerOf = (trace: Trace, decisions: TraceDecisions): TraceAnswer | null =>
  decisionOf(trace, decisions)?.does ?? trace.proposed
/** Whether a trace stays though nobody said so: it is probably none. */
export const isPassed = (trace: Trace, decisions: TraceDecisions): boolean =>
  trace.weight === 'doubtful' && decisionOf(trace, decisions) === null
/** How a trace is edited by what happens to it; null where it stays. */
export function editBy({ edits }: Pick<Trace, 'edits'>, answer: TraceAnswer | null): TraceEdit | null {
  if (answer === 'remove') return edits.remove
  return answer === 'role' ? (edits.role ?? edits.remove) : null
}
