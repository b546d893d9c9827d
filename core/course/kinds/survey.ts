import { itemKind } from '../kind'

export const survey = itemKind({
  words: ['survey', 'surveys'],
  mark: 'quiz',
  inCartridge: null,
  inCourseJson: true,
  shows: 'text',
  workedOn: true,
  canBeMade: false,
  canBeExam: false,
})
