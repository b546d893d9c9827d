import { graceSchema, graceText } from '../../grading/grace'
import { planPart } from '../part'

/** How often students may hand in later without asking. Null: as the old course has it. */
export const grace = planPart({
  words: 'the grace allowances',
  schema: graceSchema.nullable().default(null),
  recommended: null,
  join: (joiner, values) => joiner.one('', values, graceText),
  habit: {
    keeps: value => value,
    over: (own, kept) => kept ?? own,
    tells: kept => (kept ? [`Grace allowances: ${graceText(kept)}.`] : []),
  },
  eachTerm: null,
  again: value => value,
  furtherShells: 'the same',
  forOtherSource: value => value,
  effect: ({ grace }) => ({ grace }),
})
