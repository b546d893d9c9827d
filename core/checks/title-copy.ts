import { saysCopy } from '../pairing/names'
import { check, standingItems } from './check'

/** What copying leaves at an end of a title. */
export const titleCopy = check({
  title: 'Titles that say “Copy”',
  short: 'says “Copy”',
  grave: 'look',
  mends: 'Rename it',
  knows: [],
  find: course =>
    standingItems(course).flatMap(({ lineage, title }) => {
      const clean = saysCopy(title)
      return clean === null
        ? []
        : [{ lineage, sentence: `The title still says “Copy”. Without it: “${clean}”.` }]
    }),
})
