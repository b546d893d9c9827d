import { itemKind } from '../kind'

export const attendance = itemKind({
  words: ['attendance list', 'attendance lists'],
  mark: 'page',
  inCartridge: null,
  inCourseJson: true,
  shows: 'text',
  workedOn: false,
  canBeMade: false,
  canBeExam: false,
})
