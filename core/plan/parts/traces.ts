import { z } from 'zod'
import { counted } from '../../dates/words'
import { traceAnswers, traceDecision, type TraceDecision } from '../../student-data/traces/trace'
import { changedIn } from '../join'
import { planPart } from '../part'

const answered = (decision: TraceDecision | undefined): string =>
  decision ? traceAnswers[decision.does] : 'as proposed'
const agreed = (consent: { by: string } | undefined): string =>
  consent ? 'comes without a look into it' : 'not decided'
const told = (n: number, one: string, what: string): string[] =>
  n === 0 ? [] : [`Your ${counted(n, one)} ${what}`]
/**
 * What becomes of traces of students in what comes, by the key of each: a plan names no student. The key rests on the thing, on the words and
 * on what stands around them, so that what was decided holds for the same page in the next term. `unseen`: files that come though they could
 * not be looked into, by keys that rest on their content, and who said so.
 */
export const traces = planPart({
  words: 'traces of students',
  schema: z
    .object({
      answers: z.record(z.uuid(), traceDecision).default({}),
      unseen: z.record(z.uuid(), z.object({ by: z.string().max(200) })).default({}),
    })
    .default({ answers: {}, unseen: {} }),
  recommended: { answers: {}, unseen: {} },
  join: (joiner, values) => ({
    answers: joiner.keyed('answers', changedIn(values, 'answers'), answered),
    unseen: joiner.keyed('unseen', changedIn(values, 'unseen'), agreed),
  }),
  habit: {
    keeps: value => value,
    over: (own, kept) => ({
      answers: { ...kept.answers, ...own.answers },
      unseen: { ...kept.unseen, ...own.unseen },
    }),
    tells: ({ answers, unseen }) => [
      ...told(
        Object.keys(answers).length,
        'answer',
        'about traces of students, where the text is still the same.',
      ),
      ...told(
        Object.keys(unseen).length,
        'consent',
        'to carry a file that could not be looked into, where it is still the same.',
      ),
    ],
  },
  eachTerm: 'Traces of students in texts that are new or were changed.',
  again: value => value,
  furtherShells: 'the same',
  forOtherSource: () => ({ answers: {}, unseen: {} }),
  faults: ({ answers }) =>
    Object.entries(answers).flatMap(([key, { does, because }]) =>
      does === 'keep' && because === ''
        ? [{ path: ['answers', key, 'because'], message: 'is empty: say why the trace is kept.' }]
        : [],
    ),
  effect: ({ traces }) => ({ traces }),
})
