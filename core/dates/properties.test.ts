import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { zoneRules } from '../../server/services/zones'
import { anyCalendar, anyMeetings, itemsAround } from '../../tests/support/arbitraries'
import { dayOf, weekdayOf } from '../calendar/day'
import type { TermCalendar } from '../calendar/schema'
import { compileTerm, type Term } from '../calendar/term'
import { yearsOf } from './case'
import { planDates, type DatedItem, type PlanInput } from './plan'
import { ruleSchemas, ruleSchema, slotNames, type Rule } from './rule'
import { sentence } from './sentences'
import { zoneOf } from './zones'

const crossing = anyCalendar.chain(source => anyCalendar.chain(target => fc.record({ source: fc.constant(source), target: fc.constant(target), sourceMeetings: anyMeetings, targetMeetings: anyMeetings, items: itemsAround(source, true) })))
type Crossing = typeof crossing extends fc.Arbitrary<infer T> ? T : never
const zoneOfCalendar = (calendar: TermCalendar) => { const { from, to } = yearsOf(calendar); return zoneRules(calendar.timeZone, from, to) }
const inputOf = (c: Crossing, rule: Rule): PlanInput => ({ ...c, source: compileTerm(c.source), target: compileTerm(c.target), zone: zoneOfCalendar(c.target), rules: { rule, kindRules: {}, unitRules: {}, itemRules: {} } })
const keepWeek = ruleSchemas['keep-week'].parse({ method: 'keep-week' })

const anyRule: fc.Arbitrary<Rule> = fc.oneof(
  fc.constant({ method: 'keep-week' }), fc.record({ method: fc.constant('offset'), wholeWeeks: fc.boolean() }),
  fc.record({ method: fc.constant('stretch'), basis: fc.constantFrom('calendar', 'teaching'), keepWeekday: fc.boolean() }), fc.record({ method: fc.constant('meetings'), align: fc.constantFrom('count', 'share', null) }),
  fc.constant({ method: 'anchor', milestone: 'add-drop' }), fc.constant({ method: 'span' }), fc.constant({ method: 'none' }), fc.constant({ method: 'always' }),
).chain(rule => fc.record({
  weekdays: fc.constantFrom({}, { 1: 2 }, { 1: 3, 3: 5, 5: 1 }), times: fc.constantFrom({}, { due: 'class-start' }, { opens: '08:00', due: '23:59', closes: 'class-end' }),
  closures: fc.constantFrom({}, { opens: 'previous', due: 'previous', closes: 'nearest' }, { opens: 'next', due: 'keep', closes: 'keep' }),
}).map(more => ruleSchema.parse({ ...rule, ...more })))

const firstWeekday = (term: Term, day: number): boolean => zoneOf(term, day) === 'classes'

describe('dates, for any two terms', () => {
  it('keep-week preserves the weekday unless a flag says why', () => {
    fc.assert(fc.property(crossing, (c) => {
      const input = inputOf(c, keepWeek)
      const { items } = planDates(input)
      items.forEach((item, at) => slotNames.forEach((slot) => {
        const was = c.items[at]![slot]
        if (was === null || !firstWeekday(input.source, dayOf(was))) return
        const flags = item.slots[slot].flags.filter(flag => !['break-week', 'dst-overlap', 'on-closure', 'source-inverted'].includes(flag))
        if (flags.length === 0) expect(weekdayOf(dayOf(item[slot]!))).toBe(weekdayOf(dayOf(was)))
      }))
    }), { numRuns: 400 })
  })
  it('opens ≤ due ≤ closes is preserved, under every rule', () => {
    fc.assert(fc.property(crossing, anyRule, (c, rule) => {
      planDates(inputOf(c, rule)).items.forEach((item) => {
        // The two hours of a change of clocks may swap minutes; dates never.
        const at = (slot: 'opens' | 'due' | 'closes') => item[slot] && !item.flags.includes('dst-gap') ? item[slot] : null
        const [opens, due, closes] = [at('opens'), at('due'), at('closes')]
        if (opens && due) expect(opens <= due).toBe(true)
        if (due && closes) expect(due <= closes).toBe(true)
        if (opens && closes && !item.due) expect(opens <= closes).toBe(true)
      })
    }), { numRuns: 600 })
  })
  it('planning twice gives the same, and the order of items does not matter', () => {
    fc.assert(fc.property(crossing, anyRule, (c, rule) => {
      const once = planDates(inputOf(c, rule))
      expect(planDates(inputOf(c, rule))).toEqual(once)
      expect(planDates({ ...inputOf(c, rule), items: [...c.items].reverse() }).items.reverse()).toEqual(once.items)
    }), { numRuns: 150 })
  })
  it('no date without a reason, each with a sentence, and the last reason ends at the date', () => {
    fc.assert(fc.property(crossing, anyRule, (c, rule) => {
      planDates(inputOf(c, rule)).items.forEach((item, at) => slotNames.forEach((slot) => {
        const reasons = item.slots[slot].reasons
        if (c.items[at]![slot] !== null) expect(reasons.length).toBeGreaterThan(0)
        for (const reason of reasons) {
          expect(sentence(reason)).toMatch(/^\S.*[.!]$/s)
          expect(sentence(reason)).not.toMatch(/undefined|null|NaN/)
        }
        const last = reasons.filter(reason => reason.after !== null && reason.code !== 'source-inverted').at(-1)
        if (item[slot] !== null) expect(last!.after).toBe(item[slot])
      }))
    }), { numRuns: 400 })
  })
  it('identity: a term onto itself changes nothing that no closure holds', () => {
    fc.assert(fc.property(anyCalendar.chain(calendar => fc.tuple(fc.constant(calendar), itemsAround(calendar, true))), fc.constantFrom('keep-week', 'offset', 'stretch'), ([calendar, items], method) => {
      const rule = ruleSchema.parse({ method, closures: { opens: 'keep', due: 'keep', closes: 'keep' } })
      const planned = planDates(inputOf({ source: calendar, target: calendar, sourceMeetings: [], targetMeetings: [], items }, rule))
      planned.items.forEach((item, at) => slotNames.forEach((slot) => {
        const moved = item.flags.some(flag => ['swap-day', 'reordered', 'before-start', 'past-end', 'dst-gap'].includes(flag))
        if (!moved) expect(item[slot]).toBe(items[at]![slot])
      }))
    }), { numRuns: 300 })
  })
  it('an item’s own rule wins over its unit’s, that over its kind’s, that over the course’s', () => {
    const days = (n: number): Rule => ruleSchema.parse({ method: 'offset', days: n, closures: { due: 'keep' } })
    fc.assert(fc.property(anyCalendar, fc.subarray(['itemRules', 'unitRules', 'kindRules'] as const), (calendar, levels) => {
      const item: DatedItem = { id: 'i', kind: 'quiz', unit: 'u', opens: null, due: '1999-06-01T12:00', closes: null }
      const keys = { itemRules: 'i', unitRules: 'u', kindRules: 'quiz' }
      const shift = { itemRules: 1, unitRules: 2, kindRules: 3 }
      const rules = { rule: days(4), kindRules: {}, unitRules: {}, itemRules: {}, ...Object.fromEntries(levels.map(level => [level, { [keys[level]]: days(shift[level]) }])) }
      const planned = planDates({ ...inputOf({ source: calendar, target: calendar, sourceMeetings: [], targetMeetings: [], items: [item] }, keepWeek), rules })
      const nearest = (['itemRules', 'unitRules', 'kindRules'] as const).find(level => levels.includes(level))
      expect(planned.items[0]!.due).toBe(`1999-06-${String(1 + (nearest ? shift[nearest] : 4)).padStart(2, '0')}T12:00`)
    }))
  })
})
