import { itemKind } from '../kind'

export const recording = itemKind({
  words: ['recording', 'recordings'],
  mark: 'page',
  inCartridge: null,
  inCourseJson: true,
  shows: 'text',
  workedOn: false,
  canBeMade: false,
  canBeExam: false,
})
