import { check, standingItems } from './check'

/** A place of a template that nothing has filled. */
export const placeEmpty = check({
  title: 'Empty places of the template',
  short: 'still empty',
  grave: 'must',
  mends: 'Fill it, or remove it',
  knows: [],
  find: course =>
    standingItems(course)
      .filter(({ holds }) => holds !== null)
      .map(({ lineage }) => ({
        lineage,
        sentence: 'Nothing fills this place. Students would see it empty.',
      })),
})
