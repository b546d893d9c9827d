import { describe, expect, it } from 'vitest'
import { partValuesOf } from '../carry/again'
import type { CarriedBase } from '../carry/base'
import { termCalendar } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import { inCourseOrder, type OutlineNode } from '../course/outline'
import { ruleBy } from '../dates/rule'
import { planBase } from './base'
import { compilePlan } from './compile'
import { compileInputOf, type CompileInput } from './ledger'
import * as outline from '../../tests/support/outline'
import { around, category } from '../../tests/support/outline'
import { wall } from '../../tests/support/wall'
import { zoneRules } from '../../server/calendars/zones'
import { recommendedPlan } from './document'

const term = (from: string, to: string) =>
  compileTerm(termCalendar.parse({ timeZone: 'UTC', classes: { from, to } }))
const unit = (lineage: string, position: number, parent: string | null = null) =>
  outline.unit(lineage, { position, parent })
const item = (lineage: string, position: number, parent: string | null, more: Partial<OutlineNode> = {}) =>
  outline.item(lineage, { position, parent, ...more })
const nodes = inCourseOrder([
  unit('u1', 0),
  item('a', 0, 'u1', { due: wall('2026-09-11T23:59'), kind: 'quiz', category: 'c1' }),
  item('b', 1, 'u1'),
  unit('u2', 1),
  unit('u3', 0, 'u2'),
  item('c', 0, 'u3', { category: 'c2' }),
  item('d', 1, 'u2'),
])
const noWindows = { enrolFrom: null, enrolTo: null, openFrom: null, openTo: null }
interface Given {
  there?: OutlineNode[]
  leave?: string[]
  before?: CompileInput['before']
  document?: Partial<CompileInput['document']>
  target?: Partial<CompileInput['target']>
  source?: Partial<CompileInput['source']>
}
const input = (given: Given = {}): CompileInput =>
  compileInputOf(
    planBase({
      mode: 'roll',
      before: { bases: [], deleted: [] },
      searched: null,
      byHand: [],
      found: [],
      document: {
        ...recommendedPlan(),
        carry: { ...recommendedPlan().carry, leave: given.leave ?? [] },
        ...given.document,
      },
      sources: [
        {
          term: term('2026-09-02', '2026-12-04'),
          meetings: [],
          windows: noWindows,
          nodes,
          ...around,
          categories: [category('c1', { title: 'One' }), category('c2', { title: 'Two' })],
          ...given.source,
        },
      ],
      target: {
        term: term('2027-01-06', '2027-04-09'),
        meetings: [],
        windows: noWindows,
        nodes: given.there ?? [],
        ...around,
        ...given.target,
      },
      ...(given.before && { before: given.before }),
    }),
    zoneRules,
  )
const places = (compiled: ReturnType<typeof compilePlan>) =>
  compiled.placements
    .filter(entry => entry.entity !== 'category')
    .map(entry => [entry.lineage, entry.parent, entry.position])

describe('a plan turned into what is written', () => {
  it('counts from the days on which the old course ran, where somebody has said them', () => {
    // The package says 11 September; the course ran a week later than the term it was filed under.
    const sourceSpan = { from: '2026-09-09', to: '2026-12-11' }
    const dates = { ...recommendedPlan().dates, sourceSpan }
    const dueOf = (given: Given) =>
      compilePlan(input(given)).placements.find(entry => entry.lineage === 'a')?.dates?.due
    expect([dueOf({}), dueOf({ document: { dates } })]).toEqual(['2027-01-15T23:59', '2027-01-08T23:59'])
  })
  it('gives everything its place, densely, and its dates', () => {
    const compiled = compilePlan(input())
    expect(places(compiled)).toEqual([
      ['u1', null, 0],
      ['a', 'u1', 0],
      ['b', 'u1', 1],
      ['u2', null, 1],
      ['u3', 'u2', 0],
      ['c', 'u3', 0],
      ['d', 'u2', 1],
    ])
    expect(compiled.placements.find(entry => entry.lineage === 'a')!.dates).toMatchObject({
      due: '2027-01-15T23:59',
    })
    expect(compiled.effect).toMatchObject({
      added: { units: 3, items: 4, categories: 2, byKind: { quiz: 1, page: 3 } },
      already: 0,
      leftBehind: 0,
      dates: { dates: 1, straight: 1 },
    })
  })
  it('leaves out what is left, with units that hold nothing then, closes the gaps, and brings only the categories in use', () => {
    const compiled = compilePlan(input({ leave: ['a', 'c'] }))
    expect(places(compiled)).toEqual([
      ['u1', null, 0],
      ['b', 'u1', 0],
      ['u2', null, 1],
      ['d', 'u2', 0],
    ])
    expect(compiled.effect).toMatchObject({
      added: { units: 2, items: 2, categories: 0 },
      leftBehind: 2,
      dates: { dates: 0 },
    })
  })
  it('does not bring back what somebody deleted in the shell, nor what stands below it', () => {
    const compiled = compilePlan(input({ before: { bases: [], deleted: ['u3', 'b'] } }))
    expect(places(compiled)).toEqual([
      ['u1', null, 0],
      ['a', 'u1', 0],
      ['u2', null, 1],
      ['d', 'u2', 0],
    ])
    expect(compiled.effect).toMatchObject({ added: { units: 2, items: 2 }, already: 0, deletedThere: 2 })
  })
  it('puts new things below what a place holds, and never writes what is there already', () => {
    const carriedA = item('a', 1, 'u1', { kind: 'quiz', category: 'c1', due: wall('2027-01-15T23:59') })
    const there = inCourseOrder([unit('own', 0), unit('u1', 1), item('mine', 0, 'u1'), carriedA])
    const carried = (node: OutlineNode): CarriedBase => ({
      source: node.lineage,
      lineage: node.lineage,
      type: node.type,
      how: 'carried',
      parts: partValuesOf(node, { ...node, dates: node }),
    })
    const bases = there.filter(node => ['u1', 'a'].includes(node.lineage)).map(carried)
    const compiled = compilePlan(input({ there, before: { bases, deleted: [] } }))
    expect(places(compiled)).toEqual([
      ['b', 'u1', 2],
      ['u2', null, 2],
      ['u3', 'u2', 0],
      ['c', 'u3', 0],
      ['d', 'u2', 1],
    ])
    expect(compiled.effect).toMatchObject({
      already: 1,
      kept: { units: 2, items: 2 },
      added: { items: 3 },
      dates: { dates: 0 },
    })
  })

  it('dates a unit by its own rule or the one for its items, and only its opening', () => {
    const opening = (opens: string): Partial<OutlineNode> => ({ opens: wall(opens) })
    const dated = nodes.map(node =>
      node.lineage === 'u1' || node.lineage === 'u2' ? { ...node, ...opening('2026-09-07T08:00') } : node,
    )
    const held = ruleBy('set', { opens: '2027-02-01T09:00', due: '2027-02-02T09:00' })
    const dates = { ...recommendedPlan().dates, itemRules: { u2: held } }
    const compiled = compilePlan(input({ document: { dates }, source: { nodes: dated } }))
    const of = (lineage: string) => compiled.placements.find(entry => entry.lineage === lineage)?.dates
    expect(of('u1')).toMatchObject({ opens: '2027-01-11T08:00', due: null, closes: null })
    expect(of('u2')).toMatchObject({ opens: '2027-02-01T09:00', due: null, flags: ['set-by-hand'] })
    expect(compiled.effect.dates).toMatchObject({ dates: 3, straight: 2, held: 1 })
  })
  it('lets a unit of the shell open with the source’s that goes into it, unless it has a date of its own', () => {
    const dated = nodes.map(node =>
      node.lineage === 'u1' ? { ...node, title: 'Week 1', opens: wall('2026-09-07T08:00') } : node,
    )
    const own = (opens: string | null): OutlineNode[] =>
      inCourseOrder([outline.unit('own', { title: 'Week 1', opens: opens === null ? null : wall(opens) })])
    const opening = (there: OutlineNode[]) => {
      const { placements, effect } = compilePlan(input({ there, source: { nodes: dated } }))
      const found = placements.find(entry => entry.lineage === 'own')
      return [found?.action, found?.dates?.opens, effect.replaced, effect.dates.dates]
    }
    expect(opening(own(null))).toEqual(['dated', '2027-01-11T08:00', 0, 2])
    expect(opening(own('2027-01-04T08:00'))).toEqual([undefined, undefined, 0, 1])
  })
  it('brings the grace allowances of the first source that has some, unless the plan says otherwise', () => {
    const grace = { count: 10, days: 1, addsUp: true }
    const placed = (given: Given) =>
      compilePlan(input(given)).placements.flatMap(({ entity, action, details }) =>
        entity === 'grace' ? [{ action, ...details }] : [],
      )
    const source = { grace }
    expect(placed({})).toEqual([])
    expect(placed({ source })).toEqual([{ action: 'added', ...grace }])
    expect(placed({ source, target: { grace } })).toEqual([])
    const none = { ...grace, count: 0 }
    expect(placed({ source, target: { grace }, document: { grace: none } })).toEqual([
      { action: 'replaced', ...none },
    ])
  })
})
