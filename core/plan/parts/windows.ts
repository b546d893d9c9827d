import { farFault } from '../../dates/far'
import { windowsSchema } from '../../pairing/windows'
import { planPart } from '../part'

/** When students may enrol and enter. Null: as it is in the shell. */
export const windows = planPart({
  words: 'the windows',
  schema: windowsSchema.nullable().default(null),
  recommended: null,
  join: (joiner, from, mine, theirs) =>
    from && mine && theirs ? joiner.keyed('', from, mine, theirs) : joiner.one('', from, mine, theirs),
  habit: () => null,
  furtherShells: 'their own',
  forOtherSource: value => value,
  faults: (value, term) =>
    Object.entries(value ?? {}).flatMap(([field, at]) => (at === null ? [] : farFault([field], at, term))),
  shellFacts: value => value ?? {},
})
