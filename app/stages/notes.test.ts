import { describe, expect, it } from 'vitest'
import { nothingToSettle } from '~~/core/plan/to-settle'
import { mapCounts } from '~~/core/student-data/student-data'
import { item } from '~~/tests/support/outline'
import { somePlan } from '~/testing/plan'
import { clashName } from './clashes'
import { stageNotes } from './stage-notes'

describe('what both changed', () => {
  it('is named: the item, the kind, the decision, or the part it stands in', () => {
    const nodes = [item('x', { title: 'Tide log' })]
    const named = [
      'dates.itemRules.x',
      'dates.kindRules.quiz',
      'places.choices.x',
      'names.title',
      'windows.openTo',
      'sections.y',
    ]
    expect(named.map(path => clashName(path, nodes))).toEqual([
      '“Tide log”',
      'The rule for quizzes',
      '“Tide log”',
      'The title students see',
      'Students may enter to',
      'The sections',
    ])
  })
})
describe('the notes under the stages', () => {
  const studentData = mapCounts(() => 0)
  const plan = somePlan({})
  plan.source = { ...plan.source, studentData }
  const progress = {
    carried: 97,
    items: 98,
    dates: 98,
    toSettle: { ...nothingToSettle, dates: 1 },
    isSearching: false,
  }
  it('count, and say what must be looked at', () => {
    expect(stageNotes(plan, progress)).toMatchObject({
      pair: { text: 'matched' },
      carry: { text: '97 of 98' },
      clear: { text: 'nothing there' },
      date: { text: '1 to settle', settle: true },
      run: { text: 'writes' },
    })
  })
  it('say that a plan waits for its shell', () => {
    const target = { ...plan.target, course: { ...plan.target.course, origin: 'awaited' as const } }
    expect(stageNotes({ ...plan, target, fits: [] }, progress).pair).toEqual({
      text: 'no shell yet',
      settle: true,
    })
  })
})
