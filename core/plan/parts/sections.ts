import { z } from 'zod'
import { farFault } from '../../dates/far'
import { windowsSchema } from '../../pairing/windows'
import { planPart } from '../part'

const facts = z.object({
  label: z.string().trim().max(200, 'At most 200 characters.').nullable(),
  windows: windowsSchema.nullable(),
})
export type SectionFacts = z.infer<typeof facts>

/** What sections get that show the shell's content, by course: the label that tells each from the others, and its windows. Null: as they are. */
export const sections = planPart({
  words: 'the sections',
  schema: z.record(z.uuid(), facts).default({}),
  recommended: {},
  join: (joiner, from, mine, theirs) => joiner.keyed('', from, mine, theirs),
  habit: () => ({}),
  furtherShells: 'their own',
  forOtherSource: value => value,
  faults: (value, term) =>
    Object.entries(value).flatMap(([section, { windows }]) =>
      Object.entries(windows ?? {}).flatMap(([field, at]) =>
        at === null ? [] : farFault([section, 'windows', field], at, term),
      ),
    ),
})
