import { describe, expect, it } from 'vitest'
import type { WallTime } from '../calendar/day'
import { termCalendar } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import { ruleBy } from '../dates/rule'
import { zoneRules } from '../../server/calendars/zones'
import { around, item } from '../../tests/support/outline'
import { planBase } from './base'
import { compileInputOf, planLedger } from './ledger'
import { recommendedPlan } from './document'
import { carriedPlan, matchesOf } from './carried'
import { dateFindings, linksLost, planFindings } from './forecast'

const term = (from: string, to: string) =>
  compileTerm(termCalendar.parse({ timeZone: 'UTC', classes: { from, to } }))
const dated = (lineage: string, due: string) => item(lineage, { kind: 'assignment', due: due as WallTime })
const none = { enrolFrom: null, enrolTo: null, openFrom: null, openTo: null }
function notesWith(changed: Partial<ReturnType<typeof recommendedPlan>>): Record<string, string[]> {
  const input = compileInputOf(
    planBase({
      mode: 'roll',
      document: { ...recommendedPlan(), ...changed },
      sources: [
        {
          term: term('2026-09-02', '2026-12-04'),
          meetings: [],
          windows: none,
          nodes: [dated('a', '2026-09-11T23:59'), dated('b', '2026-11-13T23:59')],
          ...around,
        },
      ],
      found: [],
      before: { bases: [], deleted: [] },
      searched: null,
      byHand: [],
      target: {
        term: term('2027-01-06', '2027-04-09'),
        meetings: [],
        windows: { ...none, openTo: '2027-05-01' },
        nodes: [],
        ...around,
      },
    }),
    zoneRules,
  )
  const notes = dateFindings(input, input.brought.merged, planLedger(input).items)
  return Object.fromEntries([...notes].map(([id, found]) => [id, found.map(({ short }) => short)]))
}

describe('notes on the dates of a plan', () => {
  it('are none where the rules place everything within the term', () => {
    expect(notesWith({})).toEqual({})
  })
  it('look at a date set by hand like any other', () => {
    const itemRules = { a: ruleBy('set', { due: '2027-06-30T23:59' }) }
    expect(notesWith({ dates: { ...recommendedPlan().dates, itemRules } })).toEqual({
      a: ['outside the term', 'students cannot enter'],
    })
  })
  it('tell of dates that rules made only when students cannot enter, by the windows of the plan', () => {
    const windows = { ...none, openTo: '2027-02-01' }
    expect(notesWith({ windows })).toEqual({ b: ['students cannot enter'] })
  })
})

describe('what is to be looked at in what a plan will make', () => {
  it('is told of what comes and of what the shell keeps alike, under the names that it will have', () => {
    const side = (from: string, to: string, nodes: ReturnType<typeof item>[]) => ({
      term: term(from, to),
      meetings: [],
      windows: none,
      nodes,
      ...around,
    })
    const input = compileInputOf(
      planBase({
        mode: 'roll',
        document: {
          ...recommendedPlan(),
          places: { ...recommendedPlan().places, titles: { b: 'Copy of b' } },
        },
        sources: [
          side('2026-09-02', '2026-12-04', [item('a', { title: 'Copy of a' }), item('b', { position: 1 })]),
        ],
        found: [],
        before: { bases: [], deleted: [] },
        searched: null,
        byHand: [],
        target: side('2027-01-06', '2027-04-09', [item('own', { title: 'Own (copy)', kind: 'quiz' })]),
      }),
      zoneRules,
    )
    const plan = carriedPlan(input, input.brought, {
      matches: matchesOf(input, input.brought.merged, {}),
      dates: null,
    })
    const found = planFindings(input, plan, new Map(), []).map(
      ({ check, where }) => `${check} ${where.lineage}`,
    )
    expect(found.sort()).toEqual(['title.copy a', 'title.copy b', 'title.copy own'])
  })
  it('counts the links that lead nowhere by what is left: not to what comes, nor from what stays behind', () => {
    const document = recommendedPlan()
    const nodes = ['a', 'b', 'c', 'd'].map((key, position) => item(key, { position }))
    const side = { meetings: [], windows: none, ...around }
    const input = compileInputOf(
      planBase({
        mode: 'roll',
        document: { ...document, carry: { ...document.carry, leave: ['c', 'd'] } },
        sources: [{ ...side, term: term('2026-09-02', '2026-12-04'), nodes }],
        found: [],
        before: { bases: [], deleted: [] },
        searched: null,
        byHand: [],
        target: { ...side, term: term('2027-01-06', '2027-04-09'), nodes: [] },
      }),
      zoneRules,
    )
    const matches = matchesOf(input, input.brought.merged, {})
    const plan = carriedPlan(input, input.brought, { matches, dates: null })
    const link = (from: string, to: string) => ({ from, to, why: 'link' as const })
    const needs = [
      link('a', 'c'),
      link('b', 'c'),
      link('a', 'd'),
      link('a', 'b'),
      link('c', 'd'),
      link('a', 'nobody'),
    ]
    expect(linksLost(plan, [...needs, { from: 'b', to: 'd', why: 'release' }])).toEqual({
      links: 3,
      things: 2,
    })
    expect(linksLost(plan, [])).toEqual({ links: 0, things: 0 })
  })
})
