import { farFault } from '../../dates/far'
import { windowEndText, windowsSchema, windowsText } from '../../pairing/windows'
import { planPart } from '../part'

/** When students may enrol and enter. Null: as it is in the shell. */
export const windows = planPart({
  words: 'the windows',
  decisions: {
    enrolFrom: 'Students may enrol from',
    enrolTo: 'Students may enrol to',
    openFrom: 'Students may enter from',
    openTo: 'Students may enter to',
  },
  schema: windowsSchema.nullable().default(null),
  recommended: null,
  join: (joiner, { from, mine, theirs }) =>
    from && mine && theirs
      ? joiner.keyed('', { from, mine, theirs }, windowEndText)
      : joiner.one('', { from, mine, theirs }, windowsText),
  habit: null,
  eachTerm: 'When students may enrol and enter. The new term proposes it.',
  again: () => null,
  furtherShells: 'their own',
  forOtherSource: value => value,
  faults: (value, term) =>
    Object.entries(value ?? {}).flatMap(([field, at]) => (at === null ? [] : farFault([field], at, term))),
  shellFacts: value => value ?? {},
})
