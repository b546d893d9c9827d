import { check, standingItems } from './check'

/** Two things of one kind with one title in one unit: students cannot tell which is meant. */
export const titleTwice = check({
  title: 'The same title twice',
  short: 'title twice',
  grave: 'look',
  mends: 'Rename one, or leave one behind',
  knows: [],
  find: course => {
    const seen = new Set<string>()
    return standingItems(course).flatMap(({ lineage, kind, unit, title }) => {
      const key = JSON.stringify([kind, unit, title.trim().toLowerCase()])
      const isAgain = seen.has(key)
      seen.add(key)
      return isAgain && kind !== 'heading'
        ? [{ lineage, sentence: `Its unit has another one called “${title}”.` }]
        : []
    })
  },
})
