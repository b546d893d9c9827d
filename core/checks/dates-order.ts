import type { DateField, ItemDates } from '../course/dates'
import { momentText } from '../dates/words'
import { check } from './check'

/** A pair of dates that stands the wrong way round: the later field, and how it is told. */
function inverted(
  item: Readonly<ItemDates>,
  [first, then]: [DateField, DateField],
  words: string,
): { field: DateField; sentence: string }[] {
  const [a, b] = [item[first], item[then]]
  if (a === null || b === null || a <= b) return []
  return [{ field: then, sentence: `${words}: ${momentText(b)} comes before ${momentText(a)}.` }]
}

/** Opening, due date and closing must follow one another. */
export const datesOrder = check({
  title: 'Dates out of order',
  short: 'out of order',
  grave: 'must',
  mends: 'Put the dates in order',
  knows: [],
  find: ({ nodes }) =>
    nodes.flatMap(node =>
      [
        ...inverted(node, ['opens', 'due'], 'It is due before it opens'),
        ...inverted(node, ['due', 'closes'], 'It closes before it is due'),
        ...(node.due === null ? inverted(node, ['opens', 'closes'], 'It closes before it opens') : []),
      ].map(found => ({ lineage: node.lineage, ...found })),
    ),
})
