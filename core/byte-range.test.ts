import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { byteRange } from './byte-range'

describe('a range of bytes', () => {
  // The examples of RFC 9110, section 14.1.2, for a representation of 10000 bytes.
  it.each([
    ['bytes=0-499', { first: 0, last: 499 }],
    ['bytes=500-999', { first: 500, last: 999 }],
    ['bytes=-500', { first: 9500, last: 9999 }],
    ['bytes=9500-', { first: 9500, last: 9999 }],
    ['bytes=0-0', { first: 0, last: 0 }],
    ['bytes=9999-20000', { first: 9999, last: 9999 }],
    ['bytes=10000-', 'unsatisfiable'],
    ['bytes=-0', 'unsatisfiable'],
    ['bytes=500-499', null],
    ['bytes=0-0,-1', null],
    ['lines=1-2', null],
    ['bytes=-', null],
    ['bytes=a-b', null],
  ])('%s', (field, range) => expect(byteRange(field, 10_000)).toEqual(range))
  it('lies within the file, whatever is asked', () => {
    const number = fc.oneof(fc.constant(''), fc.nat(50).map(String))
    fc.assert(
      fc.property(number, number, fc.nat(40), (from, to, size) => {
        const range = byteRange(`bytes=${from}-${to}`, size)
        if (range === null || range === 'unsatisfiable') return
        expect(range.first).toBeGreaterThanOrEqual(0)
        expect(range.last).toBeLessThan(size)
        expect(range.first).toBeLessThanOrEqual(range.last)
      }),
    )
  })
})
