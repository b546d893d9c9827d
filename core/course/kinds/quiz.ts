import { itemKind } from '../kind'

export const quiz = itemKind({
  words: ['quiz', 'quizzes'],
  mark: 'quiz',
  inCartridge: 'assessment',
  inCourseJson: false,
  shows: 'questions',
  workedOn: true,
  canBeMade: true,
  canBeExam: true,
})
