import { z } from 'zod'
import { line } from '../../core/text'
import { courseLine, id } from './courses'

/** What every plan of a batch begins with. */
export const batchDecisions = z.discriminatedUnion('how', [
  z.object({ how: z.literal('recommended') }),
  z.object({ how: z.literal('as-before') }),
  z.object({ how: z.literal('habit'), habit: id }),
])
export const newBatch = z.object({
  name: line(120).min(1, 'A batch needs a name.'),
  /** The term of the shells, by its code. */
  term: z.string().min(1, 'Choose the term of the shells.'),
  /** A table of pairs (CSV); null: every shell of the term, with the source that is suggested for it. */
  table: z.string().max(1_000_000, 'At most a million characters.').nullable(),
  decisions: batchDecisions,
})
export type NewBatch = z.infer<typeof newBatch>

/** How a pair stands. `look`: it could be run once a person has said so; `exception`: it cannot; `out`: it was left out; `undone`: it was run, and that is undone. */
export const pairStates = [
  'waiting',
  'ready',
  'look',
  'exception',
  'out',
  'done',
  'failed',
  'undone',
] as const
export type PairState = (typeof pairStates)[number]
export const batchStates = ['trying', 'tried', 'running', 'stopped', 'done'] as const
export type BatchState = (typeof batchStates)[number]

/** What a run of a pair does, in numbers. */
export const pairEffect = z.object({
  units: z.int(),
  items: z.int(),
  replaced: z.int(),
  cleared: z.int(),
  /** Rows of student data that would be cleared. */
  studentRows: z.int(),
  dates: z.int(),
  /** Dates to settle: they bar no run. */
  settle: z.int(),
  /** All else to settle: a person looks at the pair first. */
  alsoSettle: z.int().default(0),
})
export type PairEffect = z.infer<typeof pairEffect>
const pairLine = z.object({
  id,
  number: z.int(),
  /** What the table said, where that named no course. */
  texts: z.object({ source: z.string(), shell: z.string() }),
  source: courseLine.nullable(),
  shell: courseLine.nullable(),
  plan: id.nullable(),
  run: id.nullable(),
  state: z.enum(pairStates),
  /** It is being run now, or waits to be. */
  isAsked: z.boolean(),
  problem: z.object({ title: z.string(), detail: z.string() }).nullable(),
  effect: pairEffect.nullable(),
})
export type PairLine = z.infer<typeof pairLine>
export const pairsWish = z.object({
  state: z.enum(pairStates).optional(),
  /** Pairs after this one, by its number. */
  after: z.coerce.number().int().optional(),
})
export const pairsReply = z.object({ pairs: z.array(pairLine), more: z.boolean() })
export type PairsReply = z.infer<typeof pairsReply>

const batchLine = z.object({
  id,
  name: z.string(),
  term: z.object({ code: z.string(), name: z.string() }),
  state: z.enum(batchStates),
  by: z.string(),
  madeAt: z.string(),
  counts: z.record(z.enum(pairStates), z.int()),
})
export const batchesReply = z.object({ batches: z.array(batchLine) })
export type BatchesReply = z.infer<typeof batchesReply>
export const batchReply = batchLine.extend({
  decisions: z.object({
    how: z.enum(['recommended', 'as-before', 'habit']),
    habit: z.string().nullable(),
  }),
  /** Shells of the term that were filled before and are none of its pairs. */
  filledBefore: z.int(),
  /** What all pairs that are ready would do together, and what those that are done did. */
  totals: z.object({ ready: pairEffect, done: pairEffect }),
  /** How many runs of it wait or go on, and what is written now. */
  open: z.int(),
  now: z.array(z.object({ shell: z.string(), done: z.int(), total: z.int() })),
  /** How many of its runs are being undone together, and how many of these wait or go on; null where none are. */
  undoing: z.object({ asked: z.int(), open: z.int() }).nullable(),
  runBy: z.string().nullable(),
  runAt: z.string().nullable(),
  endedAt: z.string().nullable(),
  mails: z.boolean(),
})
export type BatchReply = z.infer<typeof batchReply>
/** Which pairs are tried again: those that a stopped dry run has left, or those whose runs were undone. */
export const triedAgain = z.object({ which: z.enum(['waiting', 'undone']) })
/** What is done with one pair. `check`: it is tried anew; `accept`: it is run as it is; `out`: it is left out. */
/** `accept-alike`: it and all that need a look for the same reason run as they are. */
export const pairChange = z.object({ do: z.enum(['check', 'accept', 'accept-alike', 'out']) })
export type PairWish = z.infer<typeof pairChange>['do']
