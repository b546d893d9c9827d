import { describe, expect, it } from 'vitest'
import { item, unit } from '../../tests/support/outline'
import { withOwnKeys } from './own-keys'

describe('units and items with keys of the engine’s own', () => {
  it('say the same, whatever names what, and leave those given as they were', () => {
    const given = [
      unit('u', { opens: '2027-01-11T08:00' as never }),
      item('a', { parent: 'u', unit: 'u', category: 'c', rubric: 'r', group: 'g' }),
      item('b', { parent: 'a', unit: 'u', category: null }),
      // Nested in something, and of a unit, that stands elsewhere.
      item('d', { parent: 'gone', unit: 'elsewhere' }),
    ]
    const before = structuredClone(given)
    const own = withOwnKeys(given)
    expect(own).toEqual(before)
    expect(given).toEqual(before)
    expect(own[0]).not.toBe(given[0])
  })
})
