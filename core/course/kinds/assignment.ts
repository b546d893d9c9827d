import { itemKind } from '../kind'

export const assignment = itemKind({
  words: ['assignment', 'assignments'],
  mark: 'work',
  inCartridge: 'assignment',
  inCourseJson: false,
  shows: 'text',
  workedOn: true,
  canBeMade: true,
  canBeExam: true,
})
