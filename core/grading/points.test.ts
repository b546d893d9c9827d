import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parsePoints, pointsText } from './points'

describe('points', () => {
  it('are exact in ten-thousandths and come back as written', () => {
    expect([
      parsePoints('12.5'),
      parsePoints('0.00005'),
      parsePoints('-3'),
      parsePoints('1e3'),
      parsePoints(''),
      parsePoints('123456789'),
    ]).toEqual([125_000, 1, -30_000, null, null, null])
    fc.assert(
      fc.property(fc.integer({ min: -999_999_990_000, max: 999_999_990_000 }), points => {
        expect(parsePoints(pointsText(points))).toBe(points)
      }),
    )
  })
})
