import { z } from 'zod'
import { farFault } from '../../dates/far'
import { windowsSchema, windowsText } from '../../pairing/windows'
import { line } from '../../text'
import { planPart } from '../part'

const facts = z.object({
  label: line(200).nullable(),
  windows: windowsSchema.nullable(),
})
export type SectionFacts = z.infer<typeof facts>

const factsText = (own: SectionFacts | undefined): string => {
  const label = own?.label ? `label “${own.label}”` : 'its own label'
  return `${label}, ${windowsText(own?.windows)}`
}

/** What sections get that show the shell's content, by course: the label that tells each from the others, and its windows. Null: as they are. */
export const sections = planPart({
  words: 'the sections',
  schema: z.record(z.uuid(), facts).default({}),
  recommended: {},
  join: (joiner, values) => joiner.keyed('', values, factsText),
  habit: null,
  eachTerm: 'Labels and windows of sections that share the content.',
  again: () => ({}),
  furtherShells: 'their own',
  forOtherSource: value => value,
  faults: (value, term) =>
    Object.entries(value).flatMap(([section, { windows }]) =>
      Object.entries(windows ?? {}).flatMap(([field, at]) =>
        at === null ? [] : farFault([section, 'windows', field], at, term),
      ),
    ),
})
