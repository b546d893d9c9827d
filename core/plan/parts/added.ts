import { addedDecisions, nothingAdded, type FoundThing, type MadeThing } from '../../carry/added'
import { kindWords } from '../../course/model'
import { changedIn } from '../join'
import { planPart } from '../part'

const madeThingText = (made: MadeThing | undefined): string => {
  if (!made) return 'not added'
  return `${made.kind === null ? 'the unit' : `the ${kindWords(made.kind)[0]}`} “${made.title}”`
}
const foundText = (found: FoundThing | undefined): string => (found ? 'taken' : 'not taken')

/** What a plan adds of its own: units and items made in it, and items of courses that are none of its sources. */
export const added = planPart({
  words: 'what is added',
  schema: addedDecisions.default(nothingAdded),
  recommended: nothingAdded,
  join: (joiner, values) => ({
    made: joiner.keyed('made', changedIn(values, 'made'), madeThingText),
    found: joiner.keyed('found', changedIn(values, 'found'), foundText),
  }),
  // Once run they stand in the shell, which is the next term's source.
  habit: null,
  eachTerm: 'Units and items that the plan adds. Last term’s stand in its course, and come from there.',
  again: value => value,
  furtherShells: 'the same',
  forOtherSource: value => value,
  effect: ({ rows, added: { made, found } }) => {
    const comes = rows.filter(
      row => row.source && ['adds', 'both', 'fills', 'replaces'].includes(row.happens),
    )
    const among = (keys: Readonly<Record<string, unknown>>): number =>
      comes.filter(row => row.source && Object.hasOwn(keys, row.source.lineage)).length
    return { ownAdded: { made: among(made), found: among(found) } }
  },
})
