import { describe, expect, it } from 'vitest'
import { item } from '../../tests/support/outline'
import {
  addedText,
  foundNodes,
  hasMadeText,
  madeNodes,
  madeText,
  madeThing,
  nothingAdded,
  madeHtml,
} from './added'

const thing = (given: Partial<Parameters<typeof madeThing.parse>[0] & object>) =>
  madeThing.parse({ kind: 'page', title: 'Notes', ...given })

describe('what a plan makes itself', () => {
  it('has a text where its kind is read as one, and only where somebody wrote it', () => {
    expect([hasMadeText('page'), hasMadeText('quiz'), hasMadeText('heading'), hasMadeText(null)]).toEqual([
      true,
      false,
      false,
      false,
    ])
    expect(madeText(thing({ text: 'One <two>\nthree\n\n four ' }))).toBe(
      '<p>One &lt;two&gt;<br>three</p>\n<p>four</p>',
    )
    expect(madeText(thing({ text: '  ' }))).toBeNull()
    expect(madeText(thing({ kind: 'quiz', text: 'unread' }))).toBeNull()
  })
  it('stands in the unit that is chosen, or outside; a unit is no item', () => {
    const [u, p] = ['a0000000-0000-4000-8000-000000000001', 'a0000000-0000-4000-8000-000000000002']
    const made = {
      [u]: thing({ kind: null, title: 'Week 9' }),
      [p]: thing({ points: 50_000, exam: true, text: 'Read' }),
    }
    expect(madeNodes({ made }, { [p]: u })).toMatchObject([
      { lineage: u, type: 'unit', kind: null, parent: null, body: null, size: 0, title: 'Week 9' },
      { lineage: p, type: 'item', kind: 'page', parent: u, unit: u, points: 50_000, exam: true, size: 11 },
    ])
    expect(madeNodes({ made }, {})).toMatchObject([{ parent: null }, { parent: null, unit: null }])
  })
  it('is told in a text that changes with what is added and where it goes, and with nothing else', () => {
    const made = { k: thing({}) }
    const places = (into: Record<string, string | null>) => ({ into })
    const told = addedText({ added: { ...nothingAdded, made }, places: places({ k: 'u' }) })
    expect(addedText({ added: nothingAdded, places: places({ other: 'u' }) })).toBe('')
    expect(addedText({ added: { ...nothingAdded, made }, places: places({ k: 'u', other: 'v' }) })).toBe(told)
    expect(addedText({ added: { ...nothingAdded, made }, places: places({}) })).not.toBe(told)
  })
})

describe('what a plan takes of a course that is no source', () => {
  const there = item('x', {
    title: 'Tide log',
    parent: 'week',
    unit: 'week',
    depth: 2,
    group: 'g',
    release: [{ after: 'y', needs: 'seen', least: null }],
    category: 'c',
    rubric: 'r',
  })
  const course = { id: 'other', nodes: [there, item('y')] }
  it('comes by itself under the key it is given: for everyone, waiting for nothing, in the unit that is chosen', () => {
    const found = { k: { course: 'other', lineage: 'x', by: 'me' } }
    expect(foundNodes({ found }, course, { k: 'u' })).toMatchObject([
      {
        lineage: 'k',
        title: 'Tide log',
        parent: 'u',
        unit: 'u',
        depth: 0,
        group: null,
        release: [],
        rubric: 'r',
      },
    ])
    expect(foundNodes({ found }, course, {})).toMatchObject([{ parent: null, unit: null }])
  })
  it('is nothing where another course is meant, or the course has it no more', () => {
    const found = {
      a: { course: 'elsewhere', lineage: 'x', by: 'me' },
      b: { course: 'other', lineage: 'gone', by: 'me' },
    }
    expect(foundNodes({ found }, course, {})).toEqual([])
  })
})

describe('a plain text as a page', () => {
  it('has a paragraph for whatever stands between empty lines, and none that is empty', () => {
    expect(madeHtml('One & all\n\n\n  \n\nTwo\nthree\n\n')).toBe('<p>One &amp; all</p>\n<p>Two<br>three</p>')
    expect(madeHtml(' \n\n ')).toBe('')
  })
})
