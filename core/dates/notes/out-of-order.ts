import type { DateField, ItemDates } from '../../course/dates'
import { momentText } from '../words'
import { noteCheck, type Found } from './note'

/** A pair of dates that stands the wrong way round. */
function inverted(item: ItemDates, [first, then]: [DateField, DateField], words: string): Found[] {
  const [a, b] = [item[first], item[then]]
  if (a === null || b === null || a <= b) return []
  return [{ field: then, message: `${words}: ${momentText(b)} comes before ${momentText(a)}.` }]
}

/** Opening, due date and closing must follow one another. */
export const outOfOrder = noteCheck({
  short: 'out of order',
  look: item => [
    ...inverted(item, ['opens', 'due'], 'It is due before it opens'),
    ...inverted(item, ['due', 'closes'], 'It closes before it is due'),
    ...(item.due === null ? inverted(item, ['opens', 'closes'], 'It closes before it opens') : []),
  ],
})
