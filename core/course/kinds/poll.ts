import { itemKind } from '../kind'

export const poll = itemKind({
  words: ['poll', 'polls'],
  mark: 'quiz',
  inCartridge: null,
  inCourseJson: true,
  shows: 'text',
})
