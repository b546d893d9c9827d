import { itemKind } from '../kind'

export const file = itemKind({
  words: ['file', 'files'],
  mark: 'page',
  inCartridge: 'file',
  inCourseJson: false,
  shows: 'text',
  workedOn: false,
  canBeMade: false,
  canBeExam: false,
})
