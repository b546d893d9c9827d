import type { OutlineNode } from '../../course/outline'
import { check, standingItems } from '../check'

/** Hidden, with no date on which it would have opened. */
export const isUnseen = ({ state, opens }: Pick<OutlineNode, 'state' | 'opens'>): boolean =>
  state === 'hidden' && opens === null

/** What students could not see in any week of last term. */
export const unseen = check({
  title: 'Never seen by students',
  short: 'never seen',
  grave: 'look',
  mends: 'Leave it behind, or show it',
  knows: [],
  find: course =>
    standingItems(course)
      .filter(item => item.holds === null && isUnseen(item))
      .map(({ lineage }) => ({ lineage, sentence: 'It was hidden all term and had no opening date.' })),
})
