import { parsePoints } from '../../../grading/points'
import type { FindingList } from '../../findings'
import { fieldOf, rightAnswers, type Question } from './model'

/** Types that are marked by a right answer; an essay is read by a person. */
const isMarked = ({ type }: Question): boolean => type !== 'essay' && type !== 'other'

/** Says of each question what it lacks: a profile of the Common Cartridge, choices, a right answer, a weight that is a number. */
export function tellQuestionFaults(
  questions: readonly Question[],
  isKnownProfile: (profile: string) => boolean,
  where: string,
  findings: FindingList,
): void {
  questions.forEach((question, at) => {
    const name = question.title ?? question.ident
    const of = { number: at + 1, name }
    const profile = fieldOf(question.metadata, 'cc_profile')
    if (profile === null || !isKnownProfile(profile))
      findings.add('question-profile', where, { ...of, profile })
    const choices = question.responses.filter(response => response.kind === 'choice')
    if (choices.some(response => response.choices.length === 0))
      findings.add('question-without-choices', where, of)
    if (isMarked(question) && question.responses.length > 0 && rightAnswers(question) === null)
      findings.add('question-without-answer', where, of)
    const weight = fieldOf(question.metadata, 'cc_weighting')
    if (weight !== null && parsePoints(weight) === null)
      findings.add('question-weight', where, { ...of, weight })
  })
}
