import { z } from 'zod'
import { planPart } from '../part'

const name = z.string().trim().max(200, 'At most 200 characters.')
const asTheyAre = { title: null, label: null }

/** Names that the shell gets: the title students see, and what tells its section from others. Null: as they are. */
export const names = planPart({
  words: 'the names',
  schema: z
    .object({
      title: name.min(1, 'The title is empty. Students see it.').nullable(),
      label: name.nullable(),
    })
    .default(asTheyAre),
  recommended: asTheyAre,
  join: (joiner, from, mine, theirs) => joiner.keyed('', from, mine, theirs),
  habit: () => asTheyAre,
  furtherShells: 'their own',
  forOtherSource: value => value,
  shellFacts: ({ title, label }) => ({
    ...(title !== null && { title }),
    ...(label !== null && { label: label || null }),
  }),
})
