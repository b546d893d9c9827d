import { z } from 'zod'
import { filledLine } from '../text'
import { thingParts } from './again'

const lineage = z.uuid()
/** What is decided of a thing that meets one of the shell: the source's in its place, the shell's alone, or both. */
export const placeChoices = { replace: 'Replace it', keep: 'Keep the shell’s', both: 'Keep both' } as const
export type PlaceChoice = keyof typeof placeChoices
export const unitEnds = ['foot', 'head'] as const
export type UnitEnd = (typeof unitEnds)[number]
const names = Object.keys(placeChoices) as [PlaceChoice, ...PlaceChoice[]]

const questionChoice = z.object({ body: z.string().max(64), takes: z.array(z.int().min(0)).max(5000) })
export type QuestionChoice = z.output<typeof questionChoice>

/** What is decided of places: by lineage of the source's thing, and (`shell`) of the shell's that nothing meets. */
export const placesDecisions = z.object({
  pairs: z.record(lineage, lineage.nullable()).default({}),
  choices: z.record(lineage, z.enum(names)).default({}),
  shell: z.record(lineage, z.enum(['remove', 'stay'])).default({}),
  parts: z.record(lineage, z.partialRecord(z.enum(thingParts), z.enum(['source', 'shell']))).default({}),
  /** Into which unit (of the shell or of the sources) a thing goes instead of its own; null: to the top. */
  into: z.record(lineage, lineage.nullable()).default({}),
  /** What a thing is called in the shell, where that is not its own title. */
  titles: z.record(lineage, filledLine(500, 'Give it a name.')).default({}),
  /** Where in a unit what comes stands: below what it holds, or above it; and where in single units of the shell. */
  at: z.enum(unitEnds).default('foot'),
  ends: z.record(lineage, z.enum(unitEnds)).default({}),
  /** What stands under one heading comes into a place, and no more of the item. `nth`: which heading of these words, from 0. */
  headings: z
    .record(lineage, z.object({ title: z.string().min(1).max(500), nth: z.int().min(0) }))
    .default({}),
  /** Of a quiz, the questions that come, by their place among those of one body, from 0. */
  questions: z.record(lineage, questionChoice).default({}),
  /** Which thing of the same unit one stands right after, by the keys of the ledger's things; null: before all others. */
  after: z.record(lineage, lineage.nullable()).default({}),
  /** The texts of further things that come into the same place, below that of the first. */
  further: z.record(lineage, z.array(lineage).max(20)).default({}),
  /** Of a text that changed on both sides: which of the passages that differ are the source's, and of which both stay; it holds for these two texts alone. */
  passages: z
    .record(
      lineage,
      z.object({
        source: z.string(),
        shell: z.string(),
        takes: z.array(z.int().min(0)),
        both: z.array(z.int().min(0)).default([]),
      }),
    )
    .default({}),
})
export type PlacesDecisions = z.output<typeof placesDecisions>
export const noPlaces: PlacesDecisions = {
  pairs: {},
  choices: {},
  shell: {},
  parts: {},
  into: {},
  titles: {},
  at: 'foot',
  ends: {},
  headings: {},
  questions: {},
  after: {},
  further: {},
  passages: {},
}
