import { gradesDecisions, noGrades, type GradesDecisions } from '../../grading/plan'
import { pointsText } from '../../grading/points'
import { changedIn } from '../join'
import { planPart } from '../part'

type Change = GradesDecisions['categories'][string]
const changeText = (change: Change | undefined): string => {
  if (!change) return 'as it is'
  const told = [
    change.title && `“${change.title}”`,
    change.weight !== undefined && `weight ${pointsText(change.weight)}`,
    change.within && (change.within === 'equal' ? 'all items alike' : 'by points'),
    change.dropLowest !== undefined && `the lowest ${change.dropLowest} dropped`,
    change.dropHighest !== undefined && `the highest ${change.dropHighest} dropped`,
    change.exempt !== undefined && (change.exempt ? 'exempt' : 'counted'),
  ]
  return told.filter(Boolean).join(', ') || 'as it is'
}
const pairedText = (pair: string | null | undefined): string => {
  if (pair === undefined) return 'as proposed'
  return pair === null ? 'meets none of the shell’s' : 'meets one of the shell’s'
}
const itemText = (item: GradesDecisions['items'][string] | undefined): string => {
  if (!item) return 'as it is'
  const told = [
    item.category !== undefined &&
      (item.category === null ? 'in no category' : 'in a category of its own choice'),
    item.exempt !== undefined && (item.exempt ? 'exempt' : 'counted'),
    item.extra !== undefined && (item.extra ? 'beside the points' : 'among the points'),
  ]
  return told.filter(Boolean).join(', ')
}
const rulesText = (rules: GradesDecisions['rules'] | undefined): string =>
  rules
    ? `by ${rules.by}, what is not graded ${rules.ungraded === 'zero' ? 'counts 0' : 'left out'}`
    : 'as proposed'
const orderText = (order: readonly string[] | undefined): string =>
  order?.length ? 'an order of its own' : 'as it stands'

/** How grades are reckoned in the shell: scheme, categories with their weights, and what counts where. */
export const grades = planPart({
  words: 'the grade rules',
  decisions: {
    rules: 'How grades are reckoned',
    order: 'The order of the columns',
    held: 'The weights that are held',
  },
  schema: gradesDecisions.default(noGrades),
  recommended: noGrades,
  join: (joiner, values) => ({
    rules: joiner.one('rules', changedIn(values, 'rules'), rulesText),
    pairs: joiner.keyed('pairs', changedIn(values, 'pairs'), pairedText),
    whose: joiner.keyed('whose', changedIn(values, 'whose'), whose =>
      whose ? `the ${whose}’s` : 'as proposed',
    ),
    categories: joiner.keyed('categories', changedIn(values, 'categories'), changeText),
    added: joiner.keyed('added', changedIn(values, 'added'), title => (title ? `“${title}”` : 'not added')),
    held: joiner.members('held', changedIn(values, 'held'), 'weights held'),
    items: joiner.keyed('items', changedIn(values, 'items'), itemText),
    order: joiner.one('order', changedIn(values, 'order'), orderText),
  }),
  // What was decided stands in the shell now, which is the next term's source.
  habit: null,
  eachTerm: 'Changes of the grade rules. Last term’s stand in its course, and come from there.',
  again: ({ items, pairs }) => ({ ...noGrades, items, pairs }),
  furtherShells: 'the same',
  forOtherSource: () => noGrades,
  effect: ({ grades: planned, changesRules }) => ({
    grades: {
      sum: planned.sum,
      by: planned.rules.by,
      categories: planned.categories.length,
      rules: changesRules,
      changed: planned.categories.filter(line => line.changes).length,
    },
  }),
})
