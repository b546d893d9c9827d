import { itemKind } from '../kind'

/** A link that launches a publisher’s or another tool (LTI). */
export const tool = itemKind({
  words: ['tool link', 'tool links'],
  mark: 'page',
  inCartridge: 'lti',
  inCourseJson: false,
  shows: 'text',
  workedOn: false,
  canBeMade: false,
  canBeExam: false,
})
