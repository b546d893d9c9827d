import { z } from 'zod'
import { changedIn } from '../join'
import { planPart } from '../part'

/** What comes across. `leave`: lineage keys of what stays behind; everything else comes. */
export const carry = planPart({
  words: 'what comes across',
  schema: z.object({ leave: z.array(z.string()) }),
  recommended: { leave: [] },
  join: (joiner, values) => ({ leave: joiner.members(changedIn(values, 'leave')) }),
  habit: value => value,
  furtherShells: 'the same',
  forOtherSource: () => ({ leave: [] }),
  effect: ({ categories, fresh, wanted, deleted, source, target, placements, count }) => ({
    added: {
      units: count(fresh, 'unit'),
      items: count(fresh, 'item'),
      categories: categories.length,
      byKind: count.byKind(fresh),
    },
    replaced: placements.filter(entry => entry.action === 'replaced').length,
    cleared: placements.filter(entry => entry.action === 'cleared').length,
    already: count(wanted, 'item') - count(fresh, 'item') - count(deleted, 'item'),
    deletedThere: count(deleted, 'item'),
    leftBehind: count(source, 'item') - count(wanted, 'item'),
    kept: { units: count(target, 'unit'), items: count(target, 'item') },
  }),
})
