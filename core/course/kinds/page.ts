import { itemKind } from '../kind'

export const page = itemKind({
  words: ['page', 'pages'],
  mark: 'page',
  inCartridge: 'page',
  inCourseJson: false,
  shows: 'text',
  workedOn: false,
  canBeMade: true,
  canBeExam: false,
})
