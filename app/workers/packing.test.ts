import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { compileTerm } from '../../core/calendar/term'
import { planDates } from '../../core/dates/plan'
import { ruleSetSchema } from '../../core/dates/rule'
import { anyCalendar, itemsAround } from '../../tests/support/arbitraries'
import { packItems, unpackItems } from './packing'

describe('planned items between threads', () => {
  it('arrive as they left, whatever they share', () => {
    fc.assert(
      fc.property(
        anyCalendar.chain(calendar => fc.tuple(fc.constant(calendar), itemsAround(calendar))),
        ([calendar, items]) => {
          const term = compileTerm(calendar)
          const itemRules = { i1: { method: 'set', due: '2027-01-01T10:00' }, i2: { method: 'none' } }
          const planned = planDates({
            source: term,
            target: term,
            sourceMeetings: [],
            targetMeetings: [],
            zone: { timeZone: 'UTC', years: { from: 1970, to: 2199 }, offset: 0, transitions: [] },
            rules: ruleSetSchema.parse({ itemRules }),
            items,
          }).items
          expect(unpackItems(structuredClone(packItems(planned)))).toEqual(planned)
        },
      ),
    )
  })
})
