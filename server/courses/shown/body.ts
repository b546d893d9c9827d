import {
  questionsOf,
  rightAnswers,
  type Material,
  type Question,
} from '../../../core/formats/cartridge/qti/model'
import { readQuestions } from '../../../core/formats/cartridge/qti/read'
import { FormatRefusal } from '../../../core/formats/refusal'
import { readLimits } from '../../../core/formats/limits'
import { escapeText, readXml } from '../../../core/formats/xml'
import type { ItemReply } from '../../../shared/api/courses'
import { safeHtml, withLinks } from './html'

export type ShownQuestions = NonNullable<ItemReply['questions']>
/** What may be shown of a body, whatever course it is read in: a page's HTML, or the questions of a quiz (null where they cannot be read). */
export type Shown = { form: 'page'; html: string } | { form: 'questions'; questions: ShownQuestions | null }
export type ShownForm = Shown['form']

/** A question as it is shown to staff: what is asked, what is offered or accepted, what is right. */
function shownQuestion(question: Question): ShownQuestions[number] {
  const html = (texts: readonly Material[]): string =>
    safeHtml(texts.map(text => (text.html ? text.text : escapeText(text.text))).join('\n'))
  const right = rightAnswers(question)
  const isRight = (response: string, value: string): boolean =>
    right?.some(entry => entry.response === response && entry.values.includes(value)) ?? false
  return {
    type: question.type,
    points: question.points,
    prompt: html(question.prompt),
    answers: question.responses.flatMap(response =>
      response.kind === 'choice'
        ? response.choices.map(choice => ({
            html: html(choice.material),
            right: isRight(response.ident, choice.ident),
          }))
        : (right?.find(entry => entry.response === response.ident)?.values ?? []).map(value => ({
            html: safeHtml(escapeText(value)),
            right: true,
          })),
    ),
    feedback: question.feedback.map(entry => html(entry.material)).filter(Boolean),
  }
}
/** The questions of a quiz or bank; null where they cannot be read. */
function safeQuestions(bytes: Uint8Array): ShownQuestions | null {
  try {
    const { sections } = readQuestions('', readXml('', bytes, readLimits))
    return [...questionsOf(sections)].map(shownQuestion)
  } catch (error) {
    if (error instanceof FormatRefusal) return null
    throw error
  }
}

/** Makes of a body what may be shown of it. Takes time in proportion to its length: long ones go to a thread (`readable.ts`). */
export const makeShown = (bytes: Uint8Array, form: ShownForm): Shown =>
  form === 'page'
    ? { form, html: safeHtml(new TextDecoder().decode(bytes)) }
    : { form, questions: safeQuestions(bytes) }

/** The questions with their links leading to the copies in a course. */
export const questionsWithLinks = (
  questions: ShownQuestions,
  courseId: string,
  known: ReadonlyMap<string, string | null>,
): ShownQuestions => {
  const link = (html: string): string => withLinks(html, courseId, known)
  return questions.map(question => ({
    ...question,
    prompt: link(question.prompt),
    answers: question.answers.map(answer => ({ ...answer, html: link(answer.html) })),
    feedback: question.feedback.map(link),
  }))
}
