import { itemKind } from '../kind'

export const announcement = itemKind({
  words: ['announcement', 'announcements'],
  mark: 'page',
  inCartridge: null,
  inCourseJson: true,
  shows: 'text',
  workedOn: false,
  canBeMade: true,
  canBeExam: false,
})
