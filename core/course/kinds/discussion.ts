import { itemKind } from '../kind'

export const discussion = itemKind({
  words: ['discussion', 'discussions'],
  mark: 'discussion',
  inCartridge: 'topic',
  inCourseJson: false,
  shows: 'text',
  workedOn: true,
  canBeMade: true,
  canBeExam: false,
})
