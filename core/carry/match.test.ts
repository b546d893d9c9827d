import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inCourseOrder, type OutlineNode } from '../course/outline'
import * as outline from '../../tests/support/outline'
import { matchThings, surenessOf, type Sides } from './match'
import { comparableTitle } from './titles'

const hash = (letter: string): string => letter.repeat(64)
const item = (lineage: string, given: Partial<OutlineNode> = {}) =>
  outline.item(lineage, { size: given.body ? 9 : 0, ...given })
const place = (lineage: string, given: Partial<OutlineNode> = {}) =>
  item(lineage, { holds: [given.kind ?? 'page'], madeBy: 'template', ...given })
const { unit } = outline
const match = (sources: OutlineNode[], shell: OutlineNode[], more: Partial<Sides> = {}) =>
  Object.fromEntries(
    [
      ...matchThings({
        sources: inCourseOrder(sources),
        shell: inCourseOrder(shell),
        byHand: {},
        carriedAs: new Map(),
        ...more,
      }).values(),
    ].map(({ source, shell: met, level }) => [source, `${met} ${level}`]),
  )

describe('titles, as they are compared', () => {
  it.each([
    ['3.2 Tides', 'tides'],
    ['Week 3: Tides & currents', 'tides currents'],
    ['Unit 3 – Élan  vital', 'elan vital'],
    ['TIDES!', 'tides'],
    ['Week 3', 'week 3'],
    ['12', '12'],
    ['Weekly plan', 'weekly plan'],
    ['3D drawing', '3d drawing'],
    ['—', ''],
  ])('%s', (title, compared) => {
    expect(comparableTitle(title)).toBe(compared)
  })
})

describe('which thing meets which', () => {
  it('goes level by level over the whole course, the surest first', () => {
    const sources = [
      item('a', { position: 0, title: 'One' }),
      item('b', { position: 1, identifier: 'file-1' }),
      item('c', { position: 2, body: hash('c'), title: 'Renamed' }),
      item('d', { position: 3, title: 'Week 2: Tides' }),
      item('e', { position: 4, title: 'One' }),
    ]
    const shell = [
      item('t', { position: 0, title: 'tides' }),
      item('one', { position: 1, title: 'ONE' }),
      item('f', { position: 2, identifier: 'file-1', title: 'One' }),
      item('g', { position: 3, body: hash('c') }),
      item('a', { position: 4, title: 'Something else' }),
    ]
    expect(match(sources, shell)).toEqual({
      a: 'a lineage',
      b: 'f identifier',
      c: 'g content',
      d: 't title',
      e: 'one title',
    })
  })
  it('takes a person’s word before all, and what a run carried under another key before the same key', () => {
    const sources = [item('a'), item('b', { position: 1 }), item('c', { position: 2 })]
    const shell = [
      item('a'),
      item('b', { position: 1 }),
      item('x', { position: 2 }),
      item('c', { position: 3 }),
    ]
    expect(match(sources, shell, { byHand: { a: 'b', c: null }, carriedAs: new Map([['b', 'x']]) })).toEqual({
      a: 'b hand',
      b: 'x lineage',
    })
  })
  it('says how sure each level is', () => {
    const levels = ['hand', 'lineage', 'identifier', 'content', 'title', 'place', 'position'] as const
    expect(levels.map(surenessOf)).toEqual(['sure', 'sure', 'sure', 'sure', 'likely', 'guessed', 'guessed'])
  })
  it('pairs no unit with an item, whoever says so', () => {
    expect(match([unit('a'), item('b')], [item('c'), unit('d')], { byHand: { a: 'c', b: 'd' } })).toEqual({})
  })
  it('does not take two empty bodies, two kinds or a unit and an item for the same', () => {
    const empty = { body: hash('0'), size: 0 }
    expect(
      match(
        [item('a', { ...empty, title: 'x' }), item('b', { position: 1, kind: 'quiz', title: 'Tides' })],
        [
          item('c', { ...empty, title: 'y' }),
          item('d', { position: 1, title: 'Tides' }),
          unit('e', { position: 2, title: 'Tides' }),
        ],
      ),
    ).toEqual({})
  })
  it('lets a unit meet where more than half of its items did', () => {
    const inside = (n: string, parent: string, at: number) =>
      item(n, { parent, position: at, body: hash(n.slice(-1)), title: n })
    const sources = [unit('u'), inside('a1', 'u', 0), inside('b2', 'u', 1), inside('c3', 'u', 2)]
    const shell = [
      unit('v', { title: 'v' }),
      inside('x1', 'v', 0),
      unit('w', { position: 1, title: 'w' }),
      inside('y2', 'w', 0),
      inside('z3', 'w', 1),
    ]
    expect(match(sources, shell).u).toBe('w content')
    expect(match(sources, shell.slice(0, 4)).u).toBeUndefined()
    // Just half of them is not enough.
    expect(match([...sources, inside('d4', 'u', 3)], shell).u).toBeUndefined()
  })
  it('looks for a title in the unit that met first, then anywhere', () => {
    const sources = [unit('u', { title: 'Waves' }), item('a', { parent: 'u', title: 'Quiz' })]
    const shell = [
      unit('v', { title: 'Other' }),
      item('x', { parent: 'v', title: 'Quiz' }),
      unit('w', { position: 1, title: 'Unit 2: Waves' }),
      item('y', { parent: 'w', title: 'Quiz' }),
    ]
    expect(match(sources, shell)).toEqual({ u: 'w title', a: 'y title' })
    expect(match(sources, shell.slice(0, 3)).a).toBe('x title')
  })
  it('fills places of a kind in order, within units that met; and units by position only where the shell’s hold nothing but places', () => {
    const sources = [
      unit('u', { title: 'Waves' }),
      item('a', { parent: 'u', title: 'Swell' }),
      item('q', { parent: 'u', position: 1, kind: 'quiz', title: 'Check' }),
      item('b', { parent: 'u', position: 2, title: 'Surf' }),
      unit('u2', { position: 1, title: 'Currents' }),
    ]
    const shell = [
      unit('v', { title: 'Waves' }),
      place('p1', { parent: 'v', title: 'Reading' }),
      place('p2', { parent: 'v', position: 1, title: 'Test', holds: ['quiz', 'survey'] }),
      unit('mine', { position: 1, title: 'My notes' }),
      item('note', { parent: 'mine', title: 'A note' }),
      unit('w', { position: 2, title: 'Week 2' }),
      place('p3', { parent: 'w', title: 'Reading' }),
    ]
    expect(match(sources, shell)).toEqual({
      u: 'v title',
      a: 'p1 place',
      q: 'p2 place',
      u2: 'w position',
    })
  })
  const anyItem = fc.record({
    title: fc.constantFrom('Tides', 'Week 1', 'Waves', 'Quiz', ''),
    body: fc.option(fc.constantFrom(hash('a'), hash('b'))),
    identifier: fc.option(fc.constantFrom('i1', 'i2')),
    kind: fc.constantFrom('page' as const, 'quiz' as const),
    isPlace: fc.boolean(),
  })
  const anyCourse = (prefix: string) =>
    fc.array(fc.array(anyItem, { maxLength: 5 }), { maxLength: 4 }).map(units =>
      inCourseOrder(
        units.flatMap((items, at) => [
          unit(`${prefix}${at}`, { position: at, title: `Week ${at + 1}` }),
          ...items.map(({ isPlace, ...given }, n) =>
            item(`${prefix}${at}-${n}`, {
              ...given,
              ...(isPlace && prefix === 's' && { holds: [given.kind], body: null, size: 0 }),
              parent: `${prefix}${at}`,
              position: n,
            }),
          ),
        ]),
      ),
    )
  it('is one to one, of one sort, and does not depend on anything but what it is given', () => {
    fc.assert(
      fc.property(anyCourse('c'), anyCourse('s'), (sources, shell) => {
        const given = { sources, shell, byHand: {}, carriedAs: new Map() }
        const found = [...matchThings(given).values()]
        expect(new Set(found.map(entry => entry.shell)).size).toBe(found.length)
        const type = new Map([...sources, ...shell].map(node => [node.lineage, node.type]))
        for (const entry of found) expect(type.get(entry.source)).toBe(type.get(entry.shell))
        expect([...matchThings(given).values()]).toEqual(found)
      }),
    )
  })
  it('pairs everything of a course with a copy of itself by lineage', () => {
    fc.assert(
      fc.property(anyCourse('c'), course => {
        const found = matchThings({ sources: course, shell: course, byHand: {}, carriedAs: new Map() })
        expect([...found.values()]).toEqual(
          course.map(({ lineage }) => ({ source: lineage, shell: lineage, level: 'lineage' })),
        )
      }),
    )
  })
})
