import { describe, expect, it } from 'vitest'
import { nothingCleared, plannedClearing, type HeldRow } from '../student-data/clearing'
import { freshSimilarity } from '../student-data/similarity'
import type { TraceDecision } from '../student-data/traces/trace'
import { asAgain, asHabit, forOtherSource, planFaults, recommendedPlan, type PlanDocument } from './document'
import { mergePlans } from './merge'

const [one, two] = ['11111111-1111-5111-8111-111111111111', '22222222-2222-5222-8222-222222222222']
const kept: TraceDecision = { does: 'keep', because: 'a court case', by: 'H. Corrigall' }
const removed: TraceDecision = { does: 'remove', because: '', by: 'H. Corrigall' }
const withAnswers = (answers: PlanDocument['traces']['answers']): PlanDocument => ({
  ...recommendedPlan(),
  traces: { answers, unseen: {} },
})

describe('what is decided of traces', () => {
  it('is joined when two edit, and of one that both changed one is asked', () => {
    const from = recommendedPlan()
    const apart = mergePlans({
      from,
      mine: withAnswers({ [one]: kept }),
      theirs: withAnswers({ [two]: removed }),
    })
    expect(apart.document.traces.answers).toEqual({ [one]: kept, [two]: removed })
    expect(apart.clashes).toEqual([])
    const both = mergePlans({
      from,
      mine: withAnswers({ [one]: kept }),
      theirs: withAnswers({ [one]: removed }),
    })
    expect(both.clashes).toHaveLength(1)
  })
  it('holds for the same page next term and for a further run, and not for another course', () => {
    const document = withAnswers({ [one]: kept })
    expect(asHabit(document).traces).toEqual(document.traces)
    expect(asAgain(document).traces).toEqual(document.traces)
    expect(forOtherSource(document).traces.answers).toEqual({})
  })
  it('names why a trace is kept', () => {
    const term = { classes: { from: 0, to: 90 }, exams: null }
    const faults = planFaults(withAnswers({ [one]: { ...kept, because: '' } }), term)
    expect(faults.map(fault => fault.path)).toEqual([['traces', 'answers', one, 'because']])
  })
})

describe('what is cleared', () => {
  const row = (given: Partial<HeldRow>): HeldRow => ({
    kind: 'posts',
    item: one,
    enrolment: 'a',
    isStudent: true,
    rows: 3,
    ...given,
  })
  const held = [
    row({}),
    row({ item: two, rows: 2 }),
    row({ enrolment: 'teacher', isStudent: false, rows: 1 }),
    row({ kind: 'awards', item: null, rows: 4 }),
    row({ kind: 'awards', item: null, enrolment: 'b', rows: 5 }),
  ]
  const standing = [
    { enrolment: 'a', name: 'A', origin: 'registrar' as const },
    { enrolment: 'b', name: 'B', origin: 'hand' as const },
  ]
  const planned = (decisions: Partial<PlanDocument['clearing']>) =>
    plannedClearing(held, standing, { ...nothingCleared, ...decisions })
  it('is all of students’, and nothing of staff’s, unless somebody says otherwise', () => {
    expect(planned({}).rows).toBe(14)
    expect(planned({}).kinds.get('posts')).toEqual({ go: 5, stay: 0, staffGo: 0, staffStay: 1 })
    expect(planned({ staff: 'clear' }).rows).toBe(15)
  })
  it('spares a kind, or named items of it', () => {
    expect(planned({ kinds: { awards: 'keep' } }).rows).toBe(5)
    expect(planned({ except: { posts: [two] } }).kinds.get('posts')).toMatchObject({ go: 3, stay: 2 })
  })
  it('is everything of whoever is taken off, whatever is spared', () => {
    const { off, rows } = planned({ kinds: { awards: 'keep', posts: 'keep' }, people: { b: 'clear' } })
    expect([off, rows]).toEqual([['b'], 5])
    expect(planned({ roster: 'clear' }).off).toEqual(['a'])
    expect(planned({ roster: 'clear', people: { a: 'keep' } }).off).toEqual([])
  })
})

describe('a similarity check', () => {
  it('knows an assignment under another identity in each place, and the same in every run into it', () => {
    const settings = { similarity: { service: 'Likeness', assignment: 'old-1' } }
    const [here, there] = [
      freshSimilarity(settings, 'shell 1', one),
      freshSimilarity(settings, 'shell 2', one),
    ]
    expect(here).toEqual(freshSimilarity(settings, 'shell 1', one))
    expect(here?.similarity.assignment).not.toBe(there?.similarity.assignment)
    expect(here?.similarity.assignment).not.toBe('old-1')
    expect(freshSimilarity({ attempts: 2 }, 'shell 1', one)).toBeNull()
  })
})
