import { describe, expect, it } from 'vitest'
import { soundInto } from './into'

/** u holds v, and v holds w. */
const parents: Readonly<Record<string, string>> = { v: 'u', w: 'v' }
const into = (decided: Record<string, string | null>) =>
  soundInto(decided, lineage => parents[lineage] ?? null)

describe('what goes into another unit', () => {
  it('goes there, but never into itself or what stands below it', () => {
    expect(into({ w: 'u' })).toEqual({ w: 'u' })
    expect(into({ u: 'u' })).toEqual({})
    expect(into({ u: 'v' })).toEqual({})
    expect(into({ u: 'w' })).toEqual({})
  })
  it('of two that would go into each other the earlier goes', () => {
    expect(into({ a: 'b', b: 'a' })).toEqual({ a: 'b' })
    expect(into({ a: 'b', b: 'c', c: 'a' })).toEqual({ a: 'b', b: 'c' })
  })
  it('goes by where the units above stand once they are moved, not by where they stood', () => {
    // v leaves u first: then u may go into what stands in v.
    expect(into({ v: null, u: 'w' })).toEqual({ v: null, u: 'w' })
    expect(into({ u: 'w', v: null })).toEqual({ v: null })
    // w goes to x, and x into u: u below w would be below itself.
    expect(into({ w: 'x', x: 'u', u: 'w' })).toEqual({ w: 'x', x: 'u' })
  })
})
