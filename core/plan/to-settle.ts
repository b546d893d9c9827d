import type { PlaceRow } from '../carry/places/row'
import type { PlannedItem } from '../dates/plan'
import { summarise } from '../dates/plan'
import type { Filed } from '../grading/periods'
import type { PlannedGrades } from '../grading/plan'
import { answerOf, type Trace, type UnseenFile } from '../student-data/traces/trace'
import type { PlanDocument } from './document'

interface SettlePart {
  readonly stage: 'carry' | 'clear' | 'date'
  /** What is counted, of one and of many, as it follows a number. */
  readonly words: readonly [one: string, many: string]
  /** Whether a run waits for it. */
  readonly bars: boolean
}
/** All of a plan that may need a person's word, in the order of the stages. */
export const settleParts = {
  places: { stage: 'carry', words: ['place', 'places'], bars: false },
  grades: { stage: 'carry', words: ['grade rule', 'grade rules'], bars: false },
  categories: {
    stage: 'carry',
    words: ['graded item without a category', 'graded items without a category'],
    bars: false,
  },
  traces: { stage: 'clear', words: ['trace of a student', 'traces of students'], bars: true },
  unseen: { stage: 'clear', words: ['file not looked into', 'files not looked into'], bars: true },
  clearing: { stage: 'clear', words: ['person added by hand', 'people added by hand'], bars: false },
  dates: { stage: 'date', words: ['date', 'dates'], bars: false },
  periods: {
    stage: 'date',
    words: ['item without a grading period', 'items without a grading period'],
    bars: false,
  },
} as const satisfies Record<string, SettlePart>
export type SettleName = keyof typeof settleParts
export const settleNames = Object.keys(settleParts) as SettleName[]
/** How much of each is still to settle. */
export type ToSettle = Readonly<Record<SettleName, number>>
export const nothingToSettle = Object.fromEntries(settleNames.map(name => [name, 0])) as ToSettle

/** What is counted. Each list holds only what a run of now would write. */
export interface Open {
  readonly document: Pick<PlanDocument, 'traces' | 'clearing'>
  readonly rows: readonly Pick<PlaceRow, 'settle'>[]
  readonly grades: Pick<PlannedGrades, 'categories' | 'rulesSettle'>
  readonly uncategorised: readonly unknown[]
  readonly traces: readonly Trace[]
  readonly unseen: readonly UnseenFile[]
  readonly byHand: readonly string[]
  readonly dates: readonly PlannedItem[]
  readonly periods: readonly Filed[]
}
/** What of a plan is still to settle: page, effect, mail, record and batch all count here. */
export function toSettle(open: Open): ToSettle {
  const { answers, unseen } = open.document.traces
  const { people } = open.document.clearing
  return {
    places: open.rows.filter(row => row.settle).length,
    grades: open.grades.categories.filter(line => line.settle).length + (open.grades.rulesSettle ? 1 : 0),
    categories: open.uncategorised.length,
    traces: open.traces.filter(trace => answerOf(trace, answers) === null).length,
    unseen: open.unseen.filter(({ id }) => !unseen[id]).length,
    clearing: open.byHand.filter(enrolment => people[enrolment] === undefined).length,
    dates: summarise(open.dates).settle,
    periods: open.periods.filter(({ period }) => period === null).length,
  }
}
/** How much is to settle in all; of some stage, where one is named. */
export const settleSum = (counts: ToSettle, stage?: SettlePart['stage']): number =>
  settleNames
    .filter(name => stage === undefined || settleParts[name].stage === stage)
    .reduce((sum, name) => sum + counts[name], 0)
/** What is to settle beside dates: a person should look at a plan that has any of it before it runs. */
export const settleBesideDates = (counts: ToSettle): number => settleSum(counts) - counts.dates
/** What is to settle, part by part, as it is told: `2 places`. */
export const settleTexts = (counts: ToSettle, of: readonly SettleName[] = settleNames): string[] =>
  of.flatMap(name => {
    const { [name]: count } = counts
    const [one, many] = settleParts[name].words
    return count === 0 ? [] : [`${count} ${count === 1 ? one : many}`]
  })
