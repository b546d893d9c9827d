import { describe, expect, it } from 'vitest'
import type { IndexLine, ShellsReply } from '~~/shared/api/shells'
import { findable, rowsOf, type View } from './index-filter'

const term = (name: string, when: 'upcoming' | 'underway' | 'past' | 'archived', daysToClasses: number) => ({
  code: name,
  name,
  classesFrom: '2027-01-06',
  classesTo: '2027-04-09',
  timeZone: 'America/Halifax',
  when,
  daysToClasses,
})
const line = (id: string, given: Partial<IndexLine> = {}): IndexLine => ({
  id,
  code: 'HYD 240',
  section: '01',
  title: 'Tidal Hydrography',
  label: null,
  term: 0,
  people: 'I. Marchetti',
  staff: 'Ilaria Marchetti, Tobenna Okonjo',
  role: 'instructor',
  origin: 'registrar',
  pinned: false,
  hidden: false,
  missing: false,
  ...given,
})
const terms = [
  term('Spring 2027', 'upcoming', 3),
  term('Autumn 2026', 'past', -120),
  term('Autumn 2019', 'archived', -2600),
]
function listed(courses: IndexLine[], view: View, text = '') {
  const reply = { today: '2027-01-03', terms, courses, waiting: [] } as unknown as ShellsReply
  const { rows, counts } = rowsOf(
    findable(reply),
    reply,
    view,
    text.toLowerCase().split(/\s+/).filter(Boolean),
  )
  return { rows: rows.map(row => ('head' in row ? `# ${row.head}` : row.line.id)), counts }
}

describe('the first page', () => {
  it('lists by term, pinned ones first, sections in order', () => {
    const courses = [line('b', { section: '02' }), line('a'), line('p', { pinned: true, section: '03' })]
    expect(listed(courses, 'now').rows).toEqual(['# Pinned', 'p', '# Spring 2027', 'a', 'b'])
  })
  it('finds what a row shows: the code with its section, full names, assistants', () => {
    const courses = [line('a'), line('b', { section: '02', staff: 'Ann Ash' })]
    const found = (text: string) => listed(courses, 'now', text).rows.slice(1)
    expect(found('hyd 240-02')).toEqual(['b'])
    expect(found('hyd240-01')).toEqual(['a'])
    expect(found('ilaria')).toEqual(['a'])
    expect(found('tobenna okonjo')).toEqual(['a'])
    expect(found('ash spring')).toEqual(['b'])
  })
  it('puts each course into one view: hidden before all, a snapshot among the archived, a template nowhere', () => {
    const courses = [
      line('now'),
      line('past', { term: 1 }),
      line('old', { term: 2 }),
      line('snapshot', { term: 1, origin: 'snapshot' }),
      line('hidden', { hidden: true }),
      line('template', { origin: 'template' }),
    ]
    expect(listed(courses, 'now').counts).toEqual({ now: 1, past: 1, archived: 2, hidden: 1 })
    expect(listed(courses, 'archived').rows).toEqual(['# Autumn 2019', 'old', '# Autumn 2026', 'snapshot'])
  })
  it('finds by code with and without its blank, title, term and person; every word must fit', () => {
    const courses = [line('a'), line('b', { code: 'BKG 115', title: 'Bread Science', people: 'A. Quist' })]
    const found = (text: string): string[] =>
      listed(courses, 'now', text).rows.filter(id => !id.startsWith('#'))
    expect(found('hyd240')).toEqual(['a'])
    expect(found('hyd 240 marchetti')).toEqual(['a'])
    expect(found('spring quist')).toEqual(['b'])
    expect(found('hyd quist')).toEqual([])
  })
})
