import { folded } from '~~/core/student-data/traces/fold'
import { tracePlaces } from '~~/core/student-data/traces/markup'
import { traceKinds } from '~~/core/student-data/traces/people'
import {
  answerOf,
  decisionOf,
  editBy,
  isPassed,
  type Looked,
  type Trace,
  type TraceAnswer,
  type TraceDecisions,
} from '~~/core/student-data/traces/trace'
import { counted, listText } from '~/composables/words'

/** Where in a thing a trace stands: `paragraph 3`, `page 2`, `log.docx, paragraph 3`. */
export function placeText({ place, paragraph, kinds, file }: Trace): string {
  if (kinds) return 'all of it'
  const numbered = place === 'text' || place === 'page'
  const words = place === 'text' ? 'paragraph' : tracePlaces[place]
  const where = numbered && paragraph !== null ? `${words} ${paragraph}` : tracePlaces[place]
  return file === null || place === 'fileName' ? where : `${file}, ${where}`
}
/** What a table of students holds: `31 names and 31 student numbers`. */
export const tableKindsText = ({ kinds }: Trace): string =>
  listText(
    Object.entries(traceKinds).flatMap(([kind, { words }]) => {
      const count = kinds?.[kind as Trace['kind']]
      return count ? [counted(count, words[0], words[1])] : []
    }),
  )
const aloneWords: Partial<Record<Trace['kind'], string>> = {
  family: 'a family name alone',
  given: 'a first name alone',
  handle: 'an initial and a family name',
  digits: 'a student number without its letter',
}
/** What a person should know of a find before saying what becomes of it. */
export function doubtText(trace: Trace): string {
  if (trace.isAlsoHere) return 'also on the new roster, or teaching'
  if (!trace.can.includes('remove')) return 'this file can be read here, not changed'
  const alone = aloneWords[trace.kind]
  if (!alone) return trace.kinds ? '' : 'say what happens: “a student” may not read right here'
  return trace.people > 1 ? `${alone}; ${trace.people} on the roster` : alone
}
/** What happens to a trace, in a word or three. */
export function happensText(trace: Trace, answers: TraceDecisions): string {
  if (isPassed(trace, answers)) return 'stays: probably no student'
  const answer = answerOf(trace, answers)
  if (answer === null) return 'to settle'
  if (answer === 'role') return `becomes “${trace.edits.role?.text ?? 'a student'}”`
  if (answer === 'keep') return `kept: ${decisionOf(trace, answers)?.because ?? ''}`
  if (trace.place === 'settings' || trace.place === 'identifier') return 'never crosses'
  if (trace.kinds || trace.place === 'metadata') return 'emptied in the copy'
  return trace.place === 'link' ? 'link removed' : 'removed'
}
/** What a button says that settles a trace so. */
export function actText(trace: Trace, answer: TraceAnswer): string {
  if (answer === 'role') return 'Say “a student”'
  if (answer === 'keep') return 'Keep it, because …'
  if (trace.kinds) return 'Take all of them out'
  return trace.place === 'link' ? 'Remove the link' : 'Remove it'
}
/** A trace as it is shown: the words found, what goes with them by what happens, and what stands there instead. */
export interface Shown {
  readonly before: string
  readonly lead: string
  readonly text: string
  readonly tail: string
  readonly after: string
  readonly instead: string
  readonly goes: boolean
}
export function shownAs(trace: Trace, answers: TraceDecisions): Shown {
  const { before, text, after } = trace
  const edit = editBy(trace, answerOf(trace, answers))
  const lead = edit ? before.slice(before.length - edit.lead) : ''
  const tail = edit ? after.slice(0, edit.tail) : ''
  return {
    before: before.slice(0, before.length - lead.length),
    lead,
    text,
    tail,
    after: after.slice(tail.length),
    instead: edit?.text ?? '',
    goes: edit !== null,
  }
}
/** Whether a name stands alone, so that one decision may be meant for each place of it. */
export const isNameAlone = ({ kind }: Trace): boolean => kind === 'family' || kind === 'given'
/** All traces of the same name alone, in whichever thing: one decision may settle them. */
export const sameName = (trace: Trace, all: readonly Trace[]): Trace[] =>
  isNameAlone(trace)
    ? all.filter(
        each =>
          isNameAlone(each) &&
          folded(each.text) === folded(trace.text) &&
          (each.weight === 'doubtful') === (trace.weight === 'doubtful'),
      )
    : [trace]
/** Names alone of which several wait for a decision: `Holt in 4 places`. */
export const namesText = (open: readonly Trace[]): string => {
  const words = new Map<string, number>()
  for (const trace of open.filter(isNameAlone)) words.set(trace.text, (words.get(trace.text) ?? 0) + 1)
  return listText([...words].map(([word, n]) => (n === 1 ? `“${word}”` : `“${word}” in ${n} places`)))
}
/** All that was looked through: `40 pages, 8 quizzes and 9 tables`. */
export const lookedText = ({ things }: Pick<Looked, 'things'>): string =>
  listText(things.map(({ one, many, count }) => counted(count, one, many)))
