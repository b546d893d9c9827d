import {
  noPlaces,
  placeChoices,
  placesDecisions,
  type PlaceChoice,
  type UnitEnd,
} from '../../carry/decisions'
import { partWords, thingParts, type PartChoices } from '../../carry/again'
import { writesSource, writesText, type PlaceRow } from '../../carry/places/row'
import type { Effect } from '../effect'
import type { RedactedThings } from '../redacted'
import { isComposed } from '../../carry/texts'
import { changedIn } from '../join'
import { planPart } from '../part'

const choiceText = (choice: PlaceChoice | undefined): string =>
  choice ? placeChoices[choice] : 'as proposed'
const pairedText = (pair: string | null | undefined): string => {
  if (pair === undefined) return 'as proposed'
  return pair === null ? 'meets nothing' : 'meets another thing of the shell'
}
const partsText = (parts: PartChoices | undefined): string =>
  thingParts
    .flatMap(part => (parts?.[part] ? [`${partWords[part]}: the ${parts[part]}’s`] : []))
    .join(', ') || 'as proposed'
const intoText = (into: string | null | undefined): string => {
  if (into === undefined) return 'where it was'
  return into === null ? 'outside the units' : 'into another unit'
}

const endText = (end: UnitEnd | undefined): string => (end === 'head' ? 'at the head' : 'at the foot')

/** A title as it comes unless somebody renames it: as it was, with no student in it. */
const titleOf = ({ source }: PlaceRow, redacted: RedactedThings): string | undefined =>
  redacted.get(source?.lineage ?? '')?.title ?? source?.title

/** What is brought up to date, and which parts of how many things. */
function updatedIn(rows: readonly PlaceRow[]): Effect['updated'] {
  const taken = rows.flatMap(row =>
    row.happens === 'again' ? [row.parts.flatMap(({ part, takes }) => (takes ? [part] : []))] : [],
  )
  return {
    things: taken.filter(({ length }) => length > 0).length,
    parts: Object.fromEntries(
      thingParts.flatMap(part => {
        const { length } = taken.filter(each => each.includes(part))
        return length > 0 ? [[part, length]] : []
      }),
    ),
  }
}

/** Where things go in the shell: which meets which, what becomes of both, and in which unit what comes stands. */
export const places = planPart({
  words: 'the places',
  decisions: { at: 'Where in a unit what comes stands' },
  schema: placesDecisions.default(noPlaces),
  recommended: noPlaces,
  join: (joiner, values) => ({
    pairs: joiner.keyed('pairs', changedIn(values, 'pairs'), pairedText),
    choices: joiner.keyed('choices', changedIn(values, 'choices'), choiceText),
    shell: joiner.keyed('shell', changedIn(values, 'shell'), choice =>
      choice === 'remove' ? 'removed' : 'stays',
    ),
    parts: joiner.keyed('parts', changedIn(values, 'parts'), partsText),
    into: joiner.keyed('into', changedIn(values, 'into'), intoText),
    titles: joiner.keyed('titles', changedIn(values, 'titles'), title =>
      title ? `“${title}”` : 'its own title',
    ),
    at: joiner.one('at', changedIn(values, 'at'), endText),
    ends: joiner.keyed('ends', changedIn(values, 'ends'), end => (end ? endText(end) : 'like the others')),
    headings: joiner.keyed('headings', changedIn(values, 'headings'), heading =>
      heading ? `what stands under “${heading.title}”` : 'all of it',
    ),
    questions: joiner.keyed('questions', changedIn(values, 'questions'), questions =>
      questions ? `${questions.takes.length} of its questions` : 'all of its questions',
    ),
    after: joiner.keyed('after', changedIn(values, 'after'), after =>
      after === undefined ? 'in its old order' : 'in another order',
    ),
    further: joiner.keyed('further', changedIn(values, 'further'), further =>
      further?.length ? `${further.length} more in the same place` : 'alone in its place',
    ),
    passages: joiner.keyed('passages', changedIn(values, 'passages'), passages =>
      passages ? `${passages.takes.length + passages.both.length} passages of the source’s` : 'as proposed',
    ),
  }),
  // Single things are left out: they are about one shell.
  habit: {
    keeps: ({ at }) => ({ ...noPlaces, at }),
    over: (own, { at }) => ({ ...own, at }),
    tells: ({ at }) => (at === noPlaces.at ? [] : [`What comes into a filled unit stands ${endText(at)}.`]),
  },
  eachTerm: 'What meets what the shell holds, and what becomes of both.',
  again: ({ at, ends, pairs, into, titles, headings, further, questions }) => ({
    ...noPlaces,
    at,
    ends,
    pairs,
    into,
    titles,
    headings,
    further,
    questions,
  }),
  furtherShells: 'their own',
  forOtherSource: ({ at }) => ({ ...noPlaces, at }),
  effect: ({ rows, added, movedByHand, redacted, count }) => ({
    moved: rows.filter(row => {
      const key = row.source?.lineage ?? row.key
      const isOwn = Object.hasOwn(added.made, key) || Object.hasOwn(added.found, key)
      return row.lineage !== null && !isOwn && movedByHand.has(key)
    }).length,
    filled: count.happens('fills'),
    replaced: count.happens('replaces'),
    updated: updatedIn(rows),
    removed: {
      things: rows.filter(({ happens }) => happens === 'removes').length,
      places: rows.filter(({ happens }) => happens === 'unfilled').length,
    },
    keptBoth: count.happens('both'),
    renamed: rows.filter(row => writesSource(row) && row.carries?.title !== titleOf(row, redacted)).length,
    texts: {
      made: rows.filter(row => row.text && isComposed(row.text) && writesText(row)).length,
      joined: count.happens('joins'),
    },
  }),
})
