import { describe, expect, it } from 'vitest'
import type { Furnishing, FurnishingName } from '~~/core/course/furniture'
import { inCourseOrder, type OutlineNode } from '~~/core/course/outline'
import { childrenIn, moveAmong } from '~/courses/arrange/arrange'
import { underHeadings } from '~/shells/template-words'
import { ledgerOf } from '~~/tests/support/carry-world'
import { item, unit } from '~~/tests/support/outline'
import type { TemplateLine } from '~~/shared/api/shares'
import { furnitureLines } from './around/furniture'
import { movedAmong } from './carry'
import { givenTo, linesOf } from './settings/settings'

const nodes: OutlineNode[] = inCourseOrder([
  unit('u'),
  item('a', { parent: 'u', kind: 'quiz' }),
  item('b', { parent: 'u', position: 1, kind: 'quiz' }),
  item('c', { parent: 'u', position: 2, kind: 'page' }),
])

describe('settings given to many', () => {
  const rows = ledgerOf({ shell: [], bases: [] }, nodes)
  const was = new Map([
    ['a', { attempts: '2', help: 'notes' }],
    ['b', { attempts: '1' }],
  ])
  it('are those of everything that comes and that students work on, as the shell will have them', () => {
    const lines = linesOf(rows, was, { b: { attempts: '2' } })
    expect(lines.map(({ lineage, settings }) => [lineage, settings])).toEqual([
      ['a', { attempts: '2', help: 'notes' }],
      ['b', { attempts: '2' }],
    ])
  })
  it('are given only where they differ; given back what it had, an item has none of its own', () => {
    const lines = linesOf(rows, was, {})
    const given = givenTo({}, lines, { attempts: '2', help: 'notes' }, ['attempts', 'help'])
    expect(given).toEqual({ b: { attempts: '2', help: 'notes' } })
    expect(givenTo(given, linesOf(rows, was, given), { attempts: '1' }, ['attempts'])).toEqual({
      a: { attempts: '1' },
      b: { help: 'notes' },
    })
    // What the model does not have set is not given.
    expect(givenTo({}, lines, {}, ['access'])).toEqual({})
  })
})

describe('what stands around the units', () => {
  const thing = (lineage: string, part: FurnishingName, page: string | null = null): Furnishing => ({
    lineage,
    part,
    title: lineage,
    item: page,
    details: {},
  })
  const happens = (choices: Record<string, 'take' | 'leave'>, carried = ['p']) =>
    furnitureLines({
      sources: [[thing('home', 'home', 'p'), thing('book', 'material'), thing('card', 'contact')]],
      shell: [thing('theirs', 'home'), thing('their book', 'material')],
      carried: new Set(carried),
      choices,
    }).map(line => `${(line.source ?? line.shell)?.lineage} ${line.happens}`)
  it('comes where the shell has nothing of the kind, and goes with its page', () => {
    expect(happens({})).toEqual(['home left', 'book left', 'card comes', 'theirs stays', 'their book stays'])
    expect(happens({ home: 'take' }, [])[0]).toBe('home page-left')
  })
  it('replaces the one of which a course has one alone, and stands beside materials', () => {
    expect(happens({ home: 'take', book: 'take', card: 'leave' })).toEqual([
      'home replaces',
      'book comes',
      'card left',
      'theirs goes',
      'their book stays',
    ])
  })
})

describe('a place up or down', () => {
  it('is told in the plan by what the row stands after then, among its own', () => {
    const rows = ledgerOf({ shell: [], bases: [] }, nodes)
    const row = (key: string) => rows.find(each => each.key === key)!
    expect(movedAmong(rows, row('b'), 1)).toEqual({ key: 'b', after: 'c' })
    expect(movedAmong(rows, row('b'), -1)).toEqual({ key: 'b', after: null })
    expect(movedAmong(rows, row('c'), -1)).toEqual({ key: 'c', after: 'a' })
    expect(movedAmong(rows, row('a'), -1)).toBeNull()
    const moved = ledgerOf({ shell: [], bases: [] }, nodes, { decisions: { after: { c: null, a: 'b' } } })
    expect(moved.map(each => each.key)).toEqual(['u', 'c', 'b', 'a'])
  })
  it('and in a course itself alike', () => {
    expect(childrenIn(nodes, null).map(node => node.lineage)).toEqual(['u'])
    const at = (lineage: string) => nodes.find(node => node.lineage === lineage)!
    expect(moveAmong(nodes, at('b'), -1)).toEqual({ parent: 'u', after: null })
    expect(moveAmong(nodes, at('b'), 1)).toEqual({ parent: 'u', after: 'c' })
    expect(moveAmong(nodes, at('c'), 1)).toBeNull()
  })
})

describe('the shelf', () => {
  it('is ordered under subjects by name, or under years with the latest first', () => {
    const kept = (title: string, subject: string, createdAt: string) =>
      ({ course: { title }, subject, createdAt }) as unknown as TemplateLine
    const all = [
      kept('a', 'Weaving', '2026-05-01'),
      kept('b', 'Bread', '2027-01-05'),
      kept('c', 'Weaving', '2027-01-02'),
    ]
    const told = (order: 'subject' | 'year') =>
      underHeadings(all, order).map(({ title, templates }) => [
        title,
        templates.map(each => each.course.title).join(''),
      ])
    expect(told('subject')).toEqual([
      ['Bread', 'b'],
      ['Weaving', 'ac'],
    ])
    expect(told('year')).toEqual([
      ['2027', 'bc'],
      ['2026', 'a'],
    ])
  })
})
