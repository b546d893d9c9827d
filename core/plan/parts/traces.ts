import { z } from 'zod'
import { counted } from '../../dates/words'
import { traceAnswers, traceDecision, type TraceDecision } from '../../student-data/traces/trace'
import { changedIn } from '../join'
import { planPart } from '../part'

const told = (decision: TraceDecision | undefined): string =>
  decision ? traceAnswers[decision.does] : 'as proposed'
/**
 * What becomes of traces of students in what comes, by the key of each (`traceId`): a plan names no student. The key rests on the thing and on
 * the words, so that what was decided holds for the same page in the next term.
 */
export const traces = planPart({
  words: 'traces of students',
  schema: z.object({ answers: z.record(z.uuid(), traceDecision).default({}) }).default({ answers: {} }),
  recommended: { answers: {} },
  join: (joiner, values) => ({ answers: joiner.keyed('answers', changedIn(values, 'answers'), told) }),
  habit: {
    keeps: value => value,
    over: (own, kept) => ({ answers: { ...kept.answers, ...own.answers } }),
    tells: ({ answers }) => {
      const n = Object.keys(answers).length
      return n === 0
        ? []
        : [`Your ${counted(n, 'answer')} about traces of students, where the text is still the same.`]
    },
  },
  eachTerm: 'Traces of students in texts that are new or were changed.',
  again: value => value,
  furtherShells: 'the same',
  forOtherSource: () => ({ answers: {} }),
  faults: ({ answers }) =>
    Object.entries(answers).flatMap(([key, { does, because }]) =>
      does === 'keep' && because === ''
        ? [{ path: ['answers', key, 'because'], message: 'is empty: say why the trace is kept.' }]
        : [],
    ),
  effect: ({ traces: { out, kept, settle } }) => ({ traces: { out, kept, settle } }),
})
