import { describe, expect, it } from 'vitest'
import { readCourseDocument } from './documents'

const read = (document: object) =>
  readCourseDocument('a.json', new TextEncoder().encode(JSON.stringify(document)))
const head = { format: 'northtide-course', class: 'k' }

describe('course JSON', () => {
  it('of version 1 is read as the newest, with nothing of what came later', () => {
    const items = [{ identifier: 'a', points: '5' }]
    expect(read({ ...head, version: 1, items, rubrics: [{ identifier: 'r' }] })).toMatchObject({
      version: 2,
      madeBy: 'person',
      items: [{ identifier: 'a', points: '5', releases: [] }],
      rubrics: [],
    })
  })
  it('of version 2 says how a course grades, what places it has, and what stands around its units', () => {
    const document = read({
      ...head,
      version: 2,
      madeBy: 'template',
      grading: { by: 'points', scale: [{ from: '0', letter: 'F' }] },
      categories: [{ identifier: 'c', title: 'Logs', weight: '15', dropLowest: 1 }],
      items: [
        { identifier: 'p', place: ['page', 'file'], releases: [{ after: 'a', needs: 'points', least: '5' }] },
      ],
      furniture: [{ identifier: 'f', part: 'contact', title: 'P. Sorrel', details: { room: '2' } }],
    })
    expect(document).toMatchObject({
      grading: { by: 'points', ungraded: 'skip', decimals: 2 },
      categories: [{ within: 'points', dropLowest: 1, exempt: false }],
      items: [{ place: ['page', 'file'] }],
    })
  })
  it('that is wrong is refused with the field that is', () => {
    expect(() => read({ ...head, version: 2, items: [{ identifier: 'p', place: ['unicorn'] }] })).toThrow(
      /items\.0\.place/,
    )
    expect(() =>
      read({ ...head, version: 2, furniture: [{ identifier: 'f', part: 'sofa', title: 'x' }] }),
    ).toThrow(/furniture\.0\.part/)
    expect(() => read({ ...head, version: 3 })).toThrow(/version/)
  })
})
