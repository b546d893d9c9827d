import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { wallOf, type WallTime } from '../../calendar/day'
import type { ItemDates } from '../../course/dates'
import { orderedDates } from './ordered'

const dates = (opens: string | null, due: string | null, closes: string | null): ItemDates => ({
  opens: opens as WallTime | null,
  due: due as WallTime | null,
  closes: closes as WallTime | null,
})
const moment = fc.option(
  fc
    .tuple(fc.integer({ min: 20_800, max: 20_900 }), fc.integer({ min: 0, max: 1439 }))
    .map(([d, m]) => wallOf(d, m)),
)
const item: fc.Arbitrary<ItemDates> = fc.record({ opens: moment, due: moment, closes: moment })

describe('dates put in order', () => {
  it('keep the distance from the due date that they had', () => {
    const was = dates('2027-01-06T08:00', '2027-01-13T23:59', '2027-01-15T23:59')
    expect(orderedDates(was, dates('2027-01-06T08:00', '2027-01-04T23:59', '2027-01-15T23:59'))).toEqual(
      dates('2026-12-28T08:00', '2027-01-04T23:59', '2027-01-15T23:59'),
    )
    expect(orderedDates(was, dates('2027-01-06T08:00', '2027-01-20T23:59', '2027-01-15T23:59'))).toEqual(
      dates('2027-01-06T08:00', '2027-01-20T23:59', '2027-01-22T23:59'),
    )
  })
  it('take the due day where they were the wrong way round before', () => {
    const inverted = dates('2027-01-20T08:00', '2027-01-13T23:59', null)
    expect(orderedDates(inverted, inverted)).toEqual(dates('2027-01-13T08:00', '2027-01-13T23:59', null))
  })
  it('are in order whatever they were, and the due date never moves', () => {
    fc.assert(
      fc.property(item, item, (was, is) => {
        const { opens, due, closes } = orderedDates(was, is)
        expect(due).toBe(is.due)
        expect([opens === null, closes === null]).toEqual([is.opens === null, is.closes === null])
        if (opens !== null && due !== null) expect(opens <= due).toBe(true)
        if (due !== null && closes !== null) expect(due <= closes).toBe(true)
        if (opens !== null && closes !== null) expect(opens <= closes).toBe(true)
      }),
    )
  })
})
