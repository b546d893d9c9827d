import { itemKind } from '../kind'

export const event = itemKind({
  words: ['event', 'events'],
  mark: 'page',
  inCartridge: null,
  inCourseJson: true,
  shows: 'text',
  workedOn: false,
  canBeMade: true,
  canBeExam: false,
})
