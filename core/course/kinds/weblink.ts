import { itemKind } from '../kind'

export const weblink = itemKind({
  words: ['web link', 'web links'],
  mark: 'page',
  inCartridge: 'weblink',
  inCourseJson: false,
  shows: 'text',
  workedOn: false,
  canBeMade: false,
  canBeExam: false,
})
