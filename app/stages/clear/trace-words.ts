import { tracePlaces } from '~~/core/student-data/traces/markup'
import { traceKinds } from '~~/core/student-data/traces/people'
import {
  answerOf,
  type Looked,
  type Trace,
  type TraceAnswer,
  type TraceDecisions,
} from '~~/core/student-data/traces/trace'
import { counted } from '~/composables/words'

const conjunction = new Intl.ListFormat('en-GB', { type: 'conjunction' })
const listText = (parts: readonly string[]): string => conjunction.format(parts)

/** Where in a thing a trace stands: `paragraph 3`, `link`, `settings`. */
export function placeText({ place, paragraph, kinds }: Trace): string {
  if (kinds) return 'all of it'
  return place === 'text' && paragraph !== null ? `paragraph ${paragraph}` : tracePlaces[place]
}
/** What a table of students holds: `31 names and 31 student numbers`. */
export const tableSays = ({ kinds }: Trace): string =>
  listText(
    Object.entries(traceKinds).flatMap(([kind, { words }]) => {
      const count = kinds?.[kind as Trace['kind']]
      return count ? [counted(count, words[0], words[1])] : []
    }),
  )
/** What a person should know of a find before saying what becomes of it. */
export function doubtText(trace: Trace): string {
  if (trace.isAlsoHere) return 'also on the new roster, or teaching'
  if (trace.isStrong) return ''
  const alone = trace.kind === 'family' ? 'a family name alone' : 'a first name alone'
  return trace.people > 1 ? `${alone}; ${trace.people} on the roster` : alone
}
/** What happens to a trace, in a word or three. */
export function happensText(trace: Trace, answers: TraceDecisions): string {
  const answer = answerOf(trace, answers)
  if (answer === null) return 'to settle'
  if (answer === 'role') return 'becomes “a student”'
  if (answer === 'keep') return `kept: ${answers[trace.id]?.because ?? ''}`
  if (trace.place === 'settings') return 'never crosses'
  if (trace.kinds) return 'emptied in the copy'
  if (trace.place === 'metadata') return 'emptied in the copy'
  return trace.place === 'link' ? 'link removed' : 'removed'
}
/** What a button says that settles a trace so. */
export function actText(trace: Trace, answer: TraceAnswer): string {
  if (answer === 'role') return 'Say “a student”'
  if (answer === 'keep') return 'Keep it, because …'
  if (trace.kinds) return 'Empty these cells'
  return trace.place === 'link' ? 'Remove the link' : 'Remove it'
}
/** All that was looked through: `40 pages, 8 quizzes and 9 tables`. */
export const lookedText = ({ things }: Pick<Looked, 'things'>): string =>
  listText(things.map(({ one, many, count }) => counted(count, one, many)))
