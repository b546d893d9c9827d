import { itemKind } from '../kind'

/** A line of its own between items. */
export const heading = itemKind({
  words: ['heading', 'headings'],
  mark: 'page',
  inCartridge: 'heading',
  inCourseJson: false,
  shows: 'title',
  workedOn: false,
  canBeMade: true,
  canBeExam: false,
})
