import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { zoneRules } from '../../server/calendars/zones'
import { anyCalendar, anyMeetings, itemsAround } from '../../tests/support/arbitraries'
import { dayOf, isoOf, minuteOf, wallOf, weekdayOf } from '../calendar/day'
import { termCalendar, type TermCalendar } from '../calendar/schema'
import { compileTerm, meetingDays, type Term } from '../calendar/term'
import { instantOf } from '../calendar/zone'
import { usualTimes } from '../course/dates'
import { planDates, type DatedItem, type PlanInput } from './plan'
import { ruleSchemas, ruleSchema, type Rule } from './rule'
import { dateFields } from '../course/dates'
import { sentence } from './reasons'
import { wall } from '../../tests/support/wall'
import { phaseOf } from './phases'

// NORTHTIDE_RUNS=50 looks fifty times as long.
const many = Number(process.env.NORTHTIDE_RUNS ?? 1)
const crossing = anyCalendar.chain(source =>
  anyCalendar.chain(target =>
    fc.record({
      source: fc.constant(source),
      target: fc.constant(target),
      sourceMeetings: anyMeetings,
      targetMeetings: anyMeetings,
      items: itemsAround(source, true),
    }),
  ),
)
type Crossing = typeof crossing extends fc.Arbitrary<infer T> ? T : never
const zoneOfCalendar = (calendar: TermCalendar) =>
  zoneRules(calendar.timeZone, {
    from: Number(calendar.classes.from.slice(0, 4)) - 3,
    to: Number(calendar.classes.to.slice(0, 4)) + 4,
  })
const inputOf = (c: Crossing, rule: Rule): PlanInput => ({
  ...c,
  source: compileTerm(c.source),
  target: compileTerm(c.target),
  zone: zoneOfCalendar(c.target),
  rules: { rule, kindRules: {}, unitRules: {}, itemRules: {} },
})
const keepWeek = ruleSchemas['keep-week'].parse({ method: 'keep-week' })

const anyRule: fc.Arbitrary<Rule> = fc
  .oneof(
    fc.constant({ method: 'keep-week' }),
    fc.record({ method: fc.constant('offset'), wholeWeeks: fc.boolean() }),
    fc.record({
      method: fc.constant('stretch'),
      basis: fc.constantFrom('calendar', 'teaching'),
      keepWeekday: fc.boolean(),
    }),
    fc.record({ method: fc.constant('meetings'), align: fc.constantFrom('count', 'share', null) }),
    fc.constant({ method: 'anchor', milestone: 'add-drop' }),
    fc.record({ method: fc.constant('span'), basis: fc.constantFrom('classes', 'course') }),
    fc.constant({ method: 'unchanged' }),
    fc.constant({ method: 'none' }),
    fc.constant({ method: 'always' }),
  )
  .chain(rule =>
    fc
      .record({
        weekdays: fc.constantFrom({}, { 1: 2 }, { 1: 3, 3: 5, 5: 1 }),
        times: fc.constantFrom(
          {},
          { due: 'class-start' },
          { opens: '08:00', due: '23:59', closes: 'class-end' },
        ),
        closures: fc.constantFrom(
          {},
          { opens: 'previous', due: 'previous', closes: 'nearest' },
          { opens: 'next', due: 'keep', closes: 'keep' },
        ),
      })
      .map(more => ruleSchema.parse({ ...rule, ...more })),
  )

const inClasses = (term: Term, day: number): boolean => phaseOf(term, day) === 'classes'

describe('dates, for any two terms', () => {
  it('keep-week preserves the weekday unless a flag says why', () => {
    fc.assert(
      fc.property(crossing, c => {
        const input = inputOf(c, keepWeek)
        const { items } = planDates(input)
        items.forEach((item, at) =>
          dateFields.forEach(field => {
            const was = c.items[at]![field]
            if (was === null || !inClasses(input.source, dayOf(was))) return
            const flags = item.crossed[field].flags.filter(
              flag => !['break-week', 'dst-overlap', 'on-closure', 'source-inverted'].includes(flag),
            )
            if (flags.length === 0) expect(weekdayOf(dayOf(item[field]!))).toBe(weekdayOf(dayOf(was)))
          }),
        )
      }),
      { numRuns: many * 400 },
    )
  })
  it('opens ≤ due ≤ closes is preserved, under every rule', () => {
    fc.assert(
      fc.property(crossing, anyRule, (c, rule) => {
        planDates(inputOf(c, rule)).items.forEach(item => {
          // The two hours of a change of clocks may swap minutes; dates never.
          const at = (field: 'opens' | 'due' | 'closes') =>
            item[field] && !item.flags.includes('dst-gap') ? item[field] : null
          const [opens, due, closes] = [at('opens'), at('due'), at('closes')]
          if (opens && due) expect(opens <= due).toBe(true)
          if (due && closes) expect(due <= closes).toBe(true)
          if (opens && closes && !item.due) expect(opens <= closes).toBe(true)
        })
      }),
      { numRuns: many * 600 },
    )
  })
  it('planning twice gives the same, and the order of items does not matter', () => {
    fc.assert(
      fc.property(crossing, anyRule, (c, rule) => {
        const once = planDates(inputOf(c, rule))
        expect(planDates(inputOf(c, rule))).toEqual(once)
        expect(planDates({ ...inputOf(c, rule), items: [...c.items].reverse() }).items.reverse()).toEqual(
          once.items,
        )
      }),
      { numRuns: many * 150 },
    )
  })
  it('no date without a reason, each with a sentence, and the last reason ends at the date', () => {
    fc.assert(
      fc.property(crossing, anyRule, (c, rule) => {
        planDates(inputOf(c, rule)).items.forEach((item, at) =>
          dateFields.forEach(field => {
            const reasons = item.crossed[field].reasons
            if (c.items[at]![field] !== null) expect(reasons.length).toBeGreaterThan(0)
            for (const reason of reasons) {
              expect(sentence(reason)).toMatch(/^\S.*[.!]$/s)
              expect(sentence(reason)).not.toMatch(/undefined|null|NaN/)
            }
            const last = reasons
              .filter(reason => reason.after !== null && reason.code !== 'source-inverted')
              .at(-1)
            if (item[field] !== null) expect(last!.after).toBe(item[field])
          }),
        )
      }),
      { numRuns: many * 400 },
    )
  })
  it('identity: a term onto itself changes nothing that no closure holds', () => {
    fc.assert(
      fc.property(
        anyCalendar.chain(calendar => fc.tuple(fc.constant(calendar), itemsAround(calendar, true))),
        fc.constantFrom('keep-week', 'offset', 'stretch'),
        ([calendar, items], method) => {
          const rule = ruleSchema.parse({ method, closures: { opens: 'keep', due: 'keep', closes: 'keep' } })
          const planned = planDates(
            inputOf(
              { source: calendar, target: calendar, sourceMeetings: [], targetMeetings: [], items },
              rule,
            ),
          )
          planned.items.forEach((item, at) =>
            dateFields.forEach(field => {
              const moved = item.flags.some(flag =>
                ['swap-day', 'reordered', 'before-start', 'past-end', 'dst-gap'].includes(flag),
              )
              if (!moved) expect(item[field]).toBe(items[at]![field])
            }),
          )
        },
      ),
      { numRuns: many * 300 },
    )
  })
  it('an item’s own rule wins over its unit’s, that over its kind’s, that over the course’s', () => {
    const days = (n: number): Rule =>
      ruleSchema.parse({ method: 'offset', days: n, closures: { due: 'keep' } })
    fc.assert(
      fc.property(
        anyCalendar,
        fc.subarray(['itemRules', 'unitRules', 'kindRules'] as const),
        (calendar, levels) => {
          const item: DatedItem = {
            id: 'i',
            kind: 'quiz',
            unit: 'u',
            opens: null,
            due: wall('1999-06-01T12:00'),
            closes: null,
          }
          const keys = { itemRules: 'i', unitRules: 'u', kindRules: 'quiz' }
          const shift = { itemRules: 1, unitRules: 2, kindRules: 3 }
          const rules = {
            rule: days(4),
            kindRules: {},
            unitRules: {},
            itemRules: {},
            ...Object.fromEntries(levels.map(level => [level, { [keys[level]]: days(shift[level]) }])),
          }
          const planned = planDates({
            ...inputOf(
              { source: calendar, target: calendar, sourceMeetings: [], targetMeetings: [], items: [item] },
              keepWeek,
            ),
            rules,
          })
          const nearest = (['itemRules', 'unitRules', 'kindRules'] as const).find(level =>
            levels.includes(level),
          )
          expect(planned.items[0]!.due).toBe(
            `1999-06-${String(1 + (nearest ? shift[nearest] : 4)).padStart(2, '0')}T12:00`,
          )
        },
      ),
    )
  })
  it('composition: there and back returns every date that no flag touched on either way', () => {
    fc.assert(
      fc.property(crossing, fc.constantFrom('keep-week', 'offset'), (c, method) => {
        const rule = ruleSchema.parse({ method })
        const there = planDates(inputOf(c, rule)).items
        const items = there.map(({ id, opens, due, closes }) => ({
          id,
          kind: 'assignment',
          unit: null,
          opens,
          due,
          closes,
        }))
        const back = {
          ...inputOf(
            {
              ...c,
              source: c.target,
              target: c.source,
              sourceMeetings: c.targetMeetings,
              targetMeetings: c.sourceMeetings,
              items,
            },
            rule,
          ),
        }
        const here = planDates(back).items
        const [from, to] = [compileTerm(c.source), compileTerm(c.target)]
        c.items.forEach((item, at) =>
          dateFields.forEach(field => {
            const [was, is] = [item[field], there[at]![field]]
            if (was === null || is === null) return
            // A date may fall into another part of the other term (after classes there, in its exams here): it is then placed by other points.
            if (method === 'keep-week' && phaseOf(from, dayOf(was)) !== phaseOf(to, dayOf(is))) return
            if (there[at]!.flags.length === 0 && here[at]!.flags.length === 0)
              expect(here[at]![field]).toBe(was)
          }),
        )
      }),
      { numRuns: many * 400 },
    )
  })
  it('monotony: stretch and meetings keep the order of due dates that no flag touched', () => {
    // By teaching days and by meetings this holds for dates on those days: two days that share one in a shorter term keep what lies past them.
    fc.assert(
      fc.property(
        crossing,
        fc.constantFrom<[string, object]>(
          ['calendar', { method: 'stretch' }],
          ['teaching', { method: 'stretch', basis: 'teaching' }],
          ['count', { method: 'meetings', align: 'count' }],
          ['share', { method: 'meetings', align: 'share' }],
        ),
        (c, [basis, parameters]) => {
          const input = inputOf(c, ruleSchema.parse({ ...parameters, closures: { due: 'keep' } }))
          const days =
            basis === 'teaching'
              ? input.source.classDays
              : basis === 'calendar'
                ? Array.from(
                    { length: input.source.classes.to - input.source.classes.from + 1 },
                    (_, at) => input.source.classes.from + at,
                  )
                : meetingDays(input.source, c.sourceMeetings)
          // A term may begin with days before its first teaching week: those are placed by counting, not by the method.
          const planned = planDates({
            ...input,
            items: days
              .filter(day => inClasses(input.source, day))
              .map(day => ({
                id: isoOf(day),
                kind: '',
                unit: null,
                opens: null,
                due: wallOf(day, 720),
                closes: null,
              })),
          }).items.filter(item => item.flags.length === 0)
          for (let at = 1; at < planned.length; at++)
            expect(planned[at - 1]!.due! <= planned[at]!.due!).toBe(true)
        },
      ),
      { numRuns: many * 200 },
    )
  })
})

describe('facts of the trade (common practice, no source)', () => {
  const halifax = (from: string, to: string): TermCalendar =>
    termCalendar.parse({ name: from, timeZone: 'America/Halifax', classes: { from, to } })
  const [autumn, spring] = [halifax('2026-09-02', '2026-12-04'), halifax('2027-01-06', '2027-04-09')]
  const plan = (method: string, items: DatedItem[]) =>
    planDates(
      inputOf(
        { source: autumn, target: spring, sourceMeetings: [], targetMeetings: [], items },
        ruleSchema.parse({ method }),
      ),
    ).items
  const due = (at: string): DatedItem => ({
    id: at,
    kind: '',
    unit: null,
    opens: null,
    due: wall(at),
    closes: null,
  })

  it('work opens at 08:00 and is due at 23:59, and the wall-clock time of a deadline survives the change of season', () => {
    expect([usualTimes.opens, usualTimes.due]).toEqual(['08:00', '23:59'])
    // 30 October is in summer time, 5 March is not, 12 March is the last Friday before clocks change again.
    for (const at of ['2026-10-30T23:59', '2026-11-06T23:59', '2026-11-20T08:00'])
      expect(plan('keep-week', [due(at)])[0]!.due!.slice(11)).toBe(at.slice(11))
  })
  it('an extension of 24 hours is the same time of day on the next day, also on the night when clocks change', () => {
    const extended = (at: string): string => wallOf(dayOf(at) + 1, minuteOf(at))
    const zone = zoneOfCalendar(spring)
    expect(extended('2027-01-15T23:59')).toBe('2027-01-16T23:59')
    expect(instantOf(zone, extended('2027-01-15T23:59')) - instantOf(zone, '2027-01-15T23:59')).toBe(24 * 60)
    expect([
      extended('2027-03-13T23:59'),
      instantOf(zone, extended('2027-03-13T23:59')) - instantOf(zone, '2027-03-13T23:59'),
    ]).toEqual(['2027-03-14T23:59', 23 * 60])
  })
  it('a shift by the course’s first day keeps every distance', () => {
    const items = ['2026-09-02T09:00', '2026-09-11T23:59', '2026-10-14T12:00', '2026-12-04T17:00'].map(due)
    const moved = plan('offset', items)
    items.forEach((item, at) =>
      expect(dayOf(moved[at]!.due!) - dayOf(moved[0]!.due!)).toBe(dayOf(item.due!) - dayOf(items[0]!.due!)),
    )
    expect(moved[0]!.due).toBe('2027-01-06T09:00')
  })
})
