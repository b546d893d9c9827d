import { z } from 'zod'
import { line } from '../../text'
import { planPart } from '../part'

const name = line(200)
const nameText = (text: string | null | undefined): string => (text ? `“${text}”` : 'as it is')
const asTheyAre = { title: null, label: null }

/** Names that the shell gets: the title students see, and what tells its section from others. Null: as they are. */
export const names = planPart({
  words: 'the names',
  decisions: { title: 'The title students see', label: 'The section label' },
  schema: z
    .object({
      title: name.min(1, 'The title is empty. Students see it.').nullable(),
      label: name.nullable(),
    })
    .default(asTheyAre),
  recommended: asTheyAre,
  join: (joiner, values) => joiner.keyed('', values, nameText),
  habit: null,
  eachTerm: 'The title students see, and the section label.',
  again: () => asTheyAre,
  furtherShells: 'their own',
  forOtherSource: value => value,
  shellFacts: ({ title, label }) => ({
    ...(title !== null && { title }),
    ...(label !== null && { label: label || null }),
  }),
})
