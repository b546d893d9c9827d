import { itemKind } from '../kind'

/** Questions for quizzes to draw from; students never see it. */
export const bank = itemKind({
  words: ['question bank', 'question banks'],
  mark: 'page',
  inCartridge: 'bank',
  inCourseJson: false,
  shows: 'questions',
  staffOnly: true,
  workedOn: false,
  canBeMade: false,
  canBeExam: false,
})
