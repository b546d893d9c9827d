import { check } from './check'

/** Graded work of which nobody has said in which category it counts. */
export const gradeCategory = check({
  title: 'Graded items without a category',
  short: 'no category',
  grave: 'must',
  mends: 'Choose a category',
  knows: ['uncategorised'],
  find: ({ uncategorised }) =>
    uncategorised.map(({ lineage }) => ({
      lineage,
      sentence: 'It has points and stands in no category, so it counts nowhere.',
    })),
})
