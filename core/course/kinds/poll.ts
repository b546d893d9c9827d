import { itemKind } from '../kind'

export const poll = itemKind({
  words: ['poll', 'polls'],
  mark: 'quiz',
  inCartridge: null,
  inCourseJson: true,
  shows: 'text',
  workedOn: true,
  canBeMade: false,
  canBeExam: false,
})
