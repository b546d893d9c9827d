import { describe, expect, it } from 'vitest'
import { category } from '../../tests/support/outline'
import { gradedAs, needsCategory, noGrades, plannedGrades, rulesSeen, type GradesInput } from './plan'
import { plainRules } from './rules'

const weights = (line: string, weight: number, more = {}) =>
  category(line, { weight: weight * 10_000, ...more })
const plan = (given: Partial<GradesInput>) =>
  plannedGrades({
    sources: [],
    sourceRules: null,
    shell: [],
    shellRules: null,
    comes: () => true,
    decisions: noGrades,
    seen: new Map(),
    ...given,
  })
const told = (given: Partial<GradesInput>) =>
  plan(given).categories.map(
    ({ lineage, title, weight, settle, changes }) =>
      `${lineage} ${title} ${weight}${settle ? ' ?' : ''}${changes ? ' written' : ''}`,
  )

describe('how grades will be reckoned in a shell', () => {
  const logs = weights('logs', 30, { title: 'Shore logs', dropLowest: 1 })
  const quiz = weights('quiz', 70, { title: 'Quizzes' })
  it('is as in the source where the shell has nothing, for the categories that come', () => {
    const rules = { ...plainRules, ungraded: 'zero' as const }
    const planned = plan({ sources: [logs, quiz], sourceRules: rules, comes: line => line === 'logs' })
    expect(planned).toMatchObject({ rules, rulesFrom: 'source', changesRules: true, sum: 300_000 })
    expect(planned.categories.map(line => line.lineage)).toEqual(['logs'])
  })
  it('keeps what the shell says, asks where both differ, and takes the source’s where the shell says nothing yet', () => {
    const mine = weights('mine', 40, { title: 'SHORE LOGS' })
    const blank = category('blank', { title: 'Week 1: Quizzes' })
    expect(told({ sources: [logs, quiz], shell: [mine, blank] })).toEqual([
      'mine SHORE LOGS 400000 ?',
      'blank Week 1: Quizzes 700000 written',
    ])
    // Seen by the last run, and the shell's kept: it is not asked again until the source changes.
    const seen = new Map(rulesSeen([logs], null).map(({ key, text }) => [key, text]))
    expect(told({ sources: [logs], shell: [mine], seen })).toEqual(['mine SHORE LOGS 400000'])
    const changed = { ...logs, weight: 350_000 }
    expect(told({ sources: [changed], shell: [mine], seen })).toEqual(['mine SHORE LOGS 400000 ?'])
    const decisions = { ...noGrades, whose: { mine: 'source' as const } }
    expect(told({ sources: [logs], shell: [mine], decisions })).toEqual(['mine SHORE LOGS 300000 written'])
  })
  it('never writes over what the institution fixed, whatever one says', () => {
    const fixed = weights('fixed', 50, { title: 'Shore logs', fixed: true })
    const decisions = {
      ...noGrades,
      whose: { fixed: 'source' as const },
      categories: { fixed: { weight: 1 } },
    }
    expect(told({ sources: [logs], shell: [fixed], decisions })).toEqual(['fixed Shore logs 500000'])
  })
  it('follows what is decided: pairs, names, exemptions, new categories, and the order of the columns', () => {
    const decisions = {
      ...noGrades,
      pairs: { quiz: 'mine' },
      categories: { logs: { title: 'Logs', exempt: true }, fresh: { weight: 150_000 } },
      added: { fresh: 'Field days' },
      order: ['fresh', 'logs'],
    }
    const planned = plan({ sources: [logs, quiz], shell: [weights('mine', 70)], decisions })
    expect(planned.categories.map(line => `${line.lineage} ${line.title}`)).toEqual([
      'fresh Field days',
      'logs Logs',
      'mine mine',
    ])
    // An exempt one counts for nothing.
    expect(planned.sum).toBe(850_000)
    expect([...planned.inShell]).toEqual([
      ['quiz', 'mine'],
      ['logs', 'logs'],
    ])
  })
  it('gives every item the shell’s category, and asks for one where an item with points has none', () => {
    const planned = plan({ sources: [quiz], decisions: { ...noGrades, pairs: { quiz: null } } })
    const item = { lineage: 'i', category: 'quiz', points: 10, exempt: false, extra: false }
    expect(gradedAs(item, planned, noGrades).category).toBe('quiz')
    const homeless = gradedAs({ ...item, category: 'gone' }, planned, noGrades)
    expect([homeless.category, needsCategory(item, homeless)]).toEqual([null, true])
    const exempt = gradedAs(item, planned, { ...noGrades, items: { i: { category: null, exempt: true } } })
    expect(needsCategory(item, exempt)).toBe(false)
  })
})
