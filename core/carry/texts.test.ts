import { describe, expect, it } from 'vitest'
import { item } from '../../tests/support/outline'
import { plannedTexts } from './texts'

const page = (lineage: string, body = lineage) => item(lineage, { body, size: 1, isHtml: true })
const planned = (decisions: Partial<Parameters<typeof plannedTexts>[0]['decisions']>, more = {}) =>
  plannedTexts({
    sources: [page('a'), page('b'), page('c'), { ...item('quiz', { kind: 'quiz', body: 'q', size: 1 }) }],
    carried: new Set(['a', 'b', 'c', 'quiz']),
    decisions: { headings: {}, further: {}, questions: {}, ...decisions },
    isFrame: () => false,
    redacts: () => null,
    isWritten: () => true,
    ...more,
  })

describe('texts that come in part or together', () => {
  it('are none where nothing is decided of them', () => {
    const { recipes, goesInto, madeOf } = planned({})
    expect([recipes.size, goesInto.size, madeOf('a')]).toEqual([0, 0, null])
  })
  it('come as what stands under a heading, with others after it', () => {
    const heading = { title: 'Square', nth: 0 }
    const { recipes, goesInto, madeOf } = planned({ headings: { a: heading }, further: { b: ['c'] } })
    expect(recipes.get('a')).toMatchObject({ heading, further: [] })
    expect(recipes.get('b')).toMatchObject({ heading: null, further: ['c'] })
    expect([...goesInto]).toEqual([['c', 'b']])
    // Told apart by which texts they are made of, and how.
    expect(new Set([madeOf('a'), madeOf('b'), planned({ headings: { b: heading } }).madeOf('b')]).size).toBe(
      3,
    )
  })
  it('count as others once something of students is taken out of one of them', () => {
    const redacts = (lineage: string) => (lineage === 'c' ? 'trace-1 remove' : null)
    const [plain, rid] = [planned({ further: { b: ['c'] } }), planned({ further: { b: ['c'] } }, { redacts })]
    expect(rid.recipes.get('b')).toMatchObject({ further: ['c'], redacts: 'trace-1 remove' })
    expect(rid.madeOf('b')).not.toBe(plain.madeOf('b'))
    expect(plain.madeOf('b')).toBe(planned({ further: { b: ['c'] } }).madeOf('b'))
    expect(rid.madeOf('a')).toBeNull()
  })
  it('take questions of a quiz only, and nothing at all of a frame', () => {
    const choice = { body: 'q', takes: [0, 2] }
    const { recipes } = planned({ questions: { quiz: choice, a: choice } })
    expect(recipes.get('quiz')?.questions).toEqual(choice)
    expect(recipes.has('a')).toBe(false)
    const frames = planned({ headings: { a: { title: 'Square', nth: 0 } } }, { isFrame: () => true })
    expect([frames.recipes.get('a')?.isFrame, frames.madeOf('a')]).toEqual([true, ''])
  })
})
