import { describe, expect, it } from 'vitest'
import { suggestSource, type Candidate } from './suggest'

const course = (id: string, more: Partial<Candidate>): Candidate => ({ id, code: 'HYD 240', section: '01', title: 'Tidal Hydrography', termStarts: '2026-09-02', instructors: ['m'], items: 90, ...more })
const shell = course('shell', { termStarts: '2027-01-06', items: 0 })

describe('a suggested source', () => {
  it('is the latest course of the same code and instructor, never an empty or a later one', () => {
    const found = suggestSource(shell, [shell, course('old', { termStarts: '2025-09-02' }), course('last', {}), course('empty', { items: 0, termStarts: '2026-12-01' }), course('later', { termStarts: '2027-05-10' })])
    expect(found).toEqual({ source: 'last', sureness: 'sure', reasons: ['same code, HYD 240', 'same title', 'same instructor', 'same section, 01'] })
  })
  it('is less sure with another instructor, or with the title alone; without either there is none', () => {
    expect(suggestSource(shell, [course('a', { instructors: ['x'], code: 'HYD-240' })])).toMatchObject({ source: 'a', sureness: 'likely' })
    expect(suggestSource(shell, [course('b', { code: 'HYD 140' })])).toMatchObject({ source: 'b', sureness: 'possible' })
    expect(suggestSource(shell, [course('c', { code: 'HYD 140', title: 'Else' })])).toBeNull()
  })
})
