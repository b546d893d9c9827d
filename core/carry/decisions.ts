import { z } from 'zod'
import { thingParts } from './again'

const lineage = z.uuid()
/** What is decided of a thing that meets one of the shell: the source's in its place, the shell's alone, or both. */
export const placeChoices = { replace: 'Replace it', keep: 'Keep the shell’s', both: 'Keep both' } as const
export type PlaceChoice = keyof typeof placeChoices
const names = Object.keys(placeChoices) as [PlaceChoice, ...PlaceChoice[]]

/** What is decided of places: by lineage of the source's thing, and (`shell`) of the shell's that nothing meets. */
export const placesDecisions = z.object({
  pairs: z.record(lineage, lineage.nullable()).default({}),
  choices: z.record(lineage, z.enum(names)).default({}),
  shell: z.record(lineage, z.enum(['remove', 'stay'])).default({}),
  parts: z.record(lineage, z.partialRecord(z.enum(thingParts), z.enum(['source', 'shell']))).default({}),
  /** Into which unit (of the shell or of the sources) a thing goes instead of its own; null: to the top. */
  into: z.record(lineage, lineage.nullable()).default({}),
  /** Where in a unit what comes stands: below what it holds, or above it. */
  at: z.enum(['foot', 'head']).default('foot'),
})
export type PlacesDecisions = z.output<typeof placesDecisions>
export const noPlaces: PlacesDecisions = {
  pairs: {},
  choices: {},
  shell: {},
  parts: {},
  into: {},
  at: 'foot',
}
