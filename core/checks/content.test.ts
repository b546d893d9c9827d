import { describe, expect, it } from 'vitest'
import { item } from '../../tests/support/outline'
import type { Need } from '../carry/needs'
import type { OutlineNode } from '../course/outline'
import { checkCourse, type CheckedCourse } from './check'
import { doublesAmong } from './content-twice'
import { courseChecks, sourceChecks } from './index'

const nothing: Partial<CheckedCourse> = {
  content: { years: new Set([2026, 2027]), addresses: new Map(), texts: new Map() },
  usedIn: new Map(),
  modes: { from: 'in-person', into: 'in-person' },
}
const told = (nodes: OutlineNode[], given: Partial<CheckedCourse> = {}): string[] =>
  checkCourse(sourceChecks, { ...nothing, nodes, ...given }).map(
    ({ where, sentence }) => `${where.lineage} ${sentence}`,
  )

describe('what is worth a look', () => {
  it('is work that no student touched, where there were students, and what was hidden all term', () => {
    const nodes = [
      item('done', { kind: 'assignment' }),
      item('undone', { kind: 'quiz' }),
      item('page', { kind: 'page' }),
      item('hidden', { kind: 'page', state: 'hidden' }),
    ]
    const worked = { students: 29, on: new Set(['done']) }
    expect(told(nodes, { worked })).toEqual([
      'undone None of the 29 students did anything here last term.',
      'hidden It was hidden all term and had no opening date.',
    ])
    // To whom the students' work is not told, and where there were none, it says nothing of them.
    expect(told(nodes.slice(0, 3))).toEqual([])
    expect(told(nodes.slice(0, 3), { worked: { students: 0, on: new Set() } })).toEqual([])
  })
  it('is a file or an address of a year that neither term touches; a page may tell of any year', () => {
    const nodes = [
      item('file', { kind: 'file', title: 'Absorption 2025.csv' }),
      item('span', { kind: 'file', title: 'Handbook 2025-2026.pdf' }),
      item('link', { kind: 'weblink', title: 'The mill' }),
      item('page', { kind: 'page', title: 'The flood of 1953' }),
      item('number', { kind: 'file', title: 'Chart 120259.pdf' }),
    ]
    const addresses = new Map([['link', 'https://mill.example/tour-2024']])
    expect(told(nodes, { content: { texts: new Map(), addresses, years: new Set([2026, 2027]) } })).toEqual([
      'file Its name says 2025.',
      'link Its address says 2024.',
    ])
  })
  it('is a quiz whose questions students were given in more than one term', () => {
    const nodes = [item('quiz', { kind: 'quiz', body: 'q' }), item('page', { kind: 'page', body: 'p' })]
    const usedIn = new Map([
      ['q', ['Autumn 2026', 'Spring 2026']],
      ['p', ['Autumn 2026', 'Spring 2026']],
    ])
    expect(told(nodes, { usedIn })).toEqual([
      'quiz The same questions were used in Autumn 2026, Spring 2026.',
    ])
    expect(told(nodes, { usedIn: new Map([['q', ['Autumn 2026']]]) })).toEqual([])
  })
  it('is what was made for another way of teaching, and nothing where both are taught alike or in both ways', () => {
    const nodes = [
      item('hello', { kind: 'discussion', title: 'Introduce yourself' }),
      item('orientation', { kind: 'page', title: 'Orientation: how this course works' }),
      item('test', { kind: 'quiz', title: 'Check 1' }),
      item('text', { kind: 'page', title: 'Why bread rises' }),
    ]
    const online = { from: 'online', into: 'in-person' } as const
    expect(told(nodes, { modes: online })).toEqual([
      'hello Made for an online course: people introduce themselves in writing.',
      'orientation Made for an online course: an orientation.',
      'test Made for an online course: a test that is taken online.',
    ])
    expect(told(nodes, { modes: { from: 'online', into: 'online' } })).toEqual([])
    expect(told(nodes, { modes: { from: 'blended', into: 'online' } })).toEqual([])
    const rooms = [item('roll', { kind: 'attendance', title: 'Roll call' })]
    expect(told(rooms, { modes: { from: 'in-person', into: 'online' } })).toHaveLength(1)
  })
})

describe('doubles', () => {
  const words = (n: number, from = 0): string =>
    Array.from({ length: n }, (_, at) => `word${at + from}`).join(' ')
  const page = (lineage: string, body: string) => item(lineage, { kind: 'page', body, title: lineage })
  const found = (texts: Record<string, string>) =>
    [
      ...doublesAmong(
        Object.keys(texts).map(body => page(body, body)),
        new Map(Object.entries(texts)),
      ),
    ].map(([lineage, { of, likeness }]) => [lineage, of, Math.round(likeness * 100)])
  it('are the same body under two keys, of one kind; the later is told of the earlier', () => {
    const items = [page('a', 'x'), page('b', 'x'), item('c', { kind: 'assignment', body: 'x' })]
    expect([...doublesAmong(items, new Map()).keys()]).toEqual(['b'])
  })
  it('are texts of which most stands in an earlier one, whichever is longer; short ones are left alone', () => {
    // Of 100 words 96 groups of five; 80 of them again make 76 groups, all of them shared.
    expect(found({ long: words(100), part: words(80) })).toEqual([['part', 'long', 99]])
    // Half of it is something else: 46 of 96 groups are shared.
    expect(found({ long: words(100), other: `${words(50)} ${words(50, 500)}` })).toEqual([])
    expect(found({ one: words(20), two: `${words(20)} end` })).toEqual([])
  })
})

describe('what a course would lack', () => {
  const found = (nodes: OutlineNode[], given: Partial<CheckedCourse> = {}) =>
    checkCourse(courseChecks, { nodes, ...given }).map(({ check, where, sentence }) => [
      check,
      where.lineage,
      sentence,
    ])
  it('is what its things need and nobody brings, told once with how many need it', () => {
    const link = (from: string, to: string): Need => ({ from, to, why: 'link' })
    const needs = {
      all: [link('a', 'gone'), link('b', 'gone'), link('c', 'gone'), link('a', 'there'), link('a', 'b')],
      comes: new Set(['a', 'b', 'c']),
      isThere: (lineage: string) => lineage === 'there',
      titleOf: (lineage: string) => `The ${lineage}`,
    }
    expect(found([], { needs })).toEqual([
      [
        'link.lost',
        'gone',
        '“The a” links to “The gone”, so do 2 more. Left behind, the link leads nowhere.',
      ],
    ])
  })
  it('is a title that tells a thing from its like in the unit', () => {
    const page = (lineage: string, unit: string | null, title: string) => item(lineage, { unit, title })
    const nodes = [
      page('a', 'u', 'Notes'),
      page('b', 'u', ' notes'),
      page('c', 'v', 'Notes'),
      item('d', { unit: 'u', title: 'Notes', kind: 'quiz' }),
    ]
    expect(found(nodes).map(([check, on]) => [check, on])).toEqual([['title.twice', 'b']])
  })
  it('is a category, a place that is filled, a title of its own; what is not known is not told', () => {
    const nodes = [
      item('copy', { title: 'Copy of Tide log' }),
      item('copied', { title: 'Tide log (copy 2)' }),
      item('own', { title: 'How to copy a chart' }),
      item('place', { title: 'Syllabus', holds: ['page'] }),
    ]
    expect(found(nodes, { uncategorised: [item('own')] }).map(([check, on]) => `${check} ${on}`)).toEqual([
      'grade.category own',
      'title.copy copy',
      'title.copy copied',
      'place.empty place',
    ])
    expect(found([item('own')])).toEqual([])
  })
})
