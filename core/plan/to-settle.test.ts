import { describe, expect, it } from 'vitest'
import type { PlannedItem } from '../dates/plan'
import type { Trace } from '../student-data/traces/trace'
import { recommendedPlan } from './document'
import { effectAsNow } from './effect-before'
import { nothingToSettle, settleBesideDates, settleSum, settleTexts, toSettle, type Open } from './to-settle'

const nothing: Open = {
  document: recommendedPlan(),
  rows: [],
  grades: { categories: [], rulesSettle: false },
  uncategorised: [],
  traces: [],
  unseen: [],
  byHand: [],
  dates: [],
  periods: [],
}
const date = (...outcomes: string[]): PlannedItem =>
  ({
    crossed: Object.fromEntries(
      ['opens', 'due', 'closes'].map((field, at) => [field, { outcome: outcomes[at] }]),
    ),
  }) as unknown as PlannedItem
const trace = (id: string): Trace =>
  ({ id, wordId: id, weight: 'ask', proposed: null, can: ['keep'] }) as unknown as Trace

describe('what is to settle', () => {
  it('is counted part by part: of dates each slot, of people those of whom nobody has said anything', () => {
    const document = recommendedPlan()
    const kept = { does: 'keep' as const, because: 'no student of ours', by: 'me' }
    const counts = toSettle({
      document: {
        traces: { ...document.traces, answers: { known: kept }, unseen: { agreed: { by: 'me' } } },
        clearing: { ...document.clearing, people: { ended: 'clear', stays: 'keep' } },
      },
      rows: [{ settle: true }, { settle: false }, { settle: true }],
      grades: { categories: [{ settle: true }, { settle: false }] as never, rulesSettle: true },
      uncategorised: [1],
      traces: [trace('known'), trace('open')],
      unseen: [{ id: 'agreed' }, { id: 'open' }] as never,
      byHand: ['ended', 'stays', 'new'],
      dates: [date('settle', 'settle', 'straight'), date('moved', 'held', 'none')],
      periods: [{ period: null }, { period: 'First half' }] as never,
    })
    expect(counts).toEqual({
      places: 2,
      grades: 2,
      categories: 1,
      traces: 1,
      unseen: 1,
      clearing: 1,
      dates: 2,
      periods: 1,
    })
    expect([settleSum(counts), settleSum(counts, 'carry'), settleSum(counts, 'clear')]).toEqual([11, 5, 3])
    expect([settleSum(counts, 'date'), settleBesideDates(counts)]).toEqual([3, 9])
  })
  it('is nothing where nothing is open, and told in numbers that agree with their words', () => {
    expect(toSettle(nothing)).toEqual(nothingToSettle)
    expect(settleTexts(nothingToSettle)).toEqual([])
    expect(settleTexts({ ...nothingToSettle, dates: 1, traces: 2, categories: 1 })).toEqual([
      '1 graded item without a category',
      '2 traces of students',
      '1 date',
    ])
  })
  it('of a run that was kept before is what its parts said', () => {
    const dates = { dates: 98, straight: 94, moved: 3, held: 0, settle: 1, none: 0, empty: 0 }
    const rest = { added: { units: 7, items: 98, categories: 8, byKind: {} }, dates }
    const now = { updated: { things: 0, parts: {} }, removed: { things: 2, places: 0 }, leftUnasked: 0 }
    const before = {
      ...rest,
      cleared: 2,
      places: { settle: 2 },
      grades: { by: 'points', sum: 0, changed: 1, settle: 3, uncategorised: 4 },
      traces: { out: 5, kept: 6, passed: 7, settle: 8, unseen: { carried: 9, settle: 10 } },
      periods: { filed: [{ name: 'First half', items: 3 }], asked: 11 },
    }
    expect(effectAsNow(before as never)).toEqual({
      ...rest,
      ...now,
      grades: { by: 'points', categories: 0, sum: 0, changed: 1, rules: false },
      traces: { out: 5, kept: 6, passed: 7, unseen: 9 },
      periods: [{ name: 'First half', items: 3 }],
      settle: {
        places: 2,
        grades: 3,
        categories: 4,
        traces: 8,
        unseen: 10,
        clearing: 0,
        dates: 1,
        periods: 11,
      },
    })
    // The oldest said nothing of most; what is told now is told as it stands.
    const oldest = effectAsNow(rest as never)
    expect([oldest.settle.dates, oldest.settle.places, oldest.periods]).toEqual([1, 0, []])
    expect(effectAsNow(oldest)).toBe(oldest)
  })
})
