import { describe, expect, it } from 'vitest'
import { wall } from '../../../tests/support/wall'
import { termCalendar } from '../../calendar/schema'
import { dayOf } from '../../calendar/day'
import { compileTerm, isUsable } from '../../calendar/term'
import type { ItemDates } from '../../course/dates'
import { planDates, type PlannedItem } from '../plan'
import { ruleSetSchema } from '../rule'
import { alikeItems, choiceForAll, choicesOf } from './choices'

const zone = {
  timeZone: 'America/Halifax',
  years: { from: 1970, to: 2199 },
  offset: 0,
  transitions: [],
}
const calendar = (more: object) => compileTerm(termCalendar.parse({ timeZone: 'America/Halifax', ...more }))
const autumn = calendar({ classes: { from: '2026-09-02', to: '2026-12-04' } })
const spring = calendar({
  classes: { from: '2027-01-06', to: '2027-04-09' },
  exams: { from: '2027-04-12', to: '2027-04-21' },
  closures: [{ from: '2027-02-15', to: '2027-02-19', name: 'Study week' }],
})
const short = calendar({ classes: { from: '2027-05-10', to: '2027-06-25' } })
function plan(target: typeof spring, dates: Partial<ItemDates>[], rule: object = {}): PlannedItem[] {
  return planDates({
    source: autumn,
    target,
    sourceMeetings: [],
    targetMeetings: [],
    zone,
    rules: ruleSetSchema.parse({ rule: { method: 'keep-week', ...rule } }),
    items: dates.map((each, at) => ({
      id: `i${at}`,
      kind: 'quiz',
      unit: null,
      opens: null,
      due: null,
      closes: null,
      ...each,
    })),
  }).items
}
const said = (item: PlannedItem, term: typeof spring): string[] =>
  choicesOf(item, { source: autumn, target: term }).map(({ outcome, words }) =>
    words ? `${outcome}, ${words}` : outcome,
  )

describe('what can be done about a date that wants settling', () => {
  it('in a closure: out of it on either side with its window, or left in it', () => {
    // A date that opens in a closure stays there by the default rule.
    const [item] = plan(spring, [{ opens: wall('2026-09-08T08:00'), due: wall('2026-09-11T23:59') }], {
      method: 'offset',
      days: 161,
    })
    expect(said(item!, spring)).toEqual([
      'Mon 22 Feb, the next usable day',
      'Fri 12 Feb, the usable day before',
      'Leave it in Study week',
    ])
    const [next] = choicesOf(item!, { source: autumn, target: spring })
    expect(next!.dates).toEqual({ opens: '2027-02-22T08:00', due: '2027-02-22T23:59', closes: null })
  })
  it('past the end of a shorter term: left, or on its own weekday of the last week; no exam day where there are none', () => {
    const [item] = plan(short, [{ due: wall('2026-12-01T23:59') }])
    expect(item!.flags).toEqual(['past-end'])
    // Class day 65 of 68 (no closures here); 33 of 35 is Wed 23 Jun.
    expect(said(item!, short)).toEqual(['Wed 23 Jun, the same share of the term', 'Leave it on Tue 22 Jun'])
    const [thursday] = plan(spring, [{ due: wall('2026-12-04T23:59') }], { method: 'offset', days: 133 })
    expect(said(thursday!, spring)).toEqual(['Leave it on Fri 9 Apr', 'Mon 12 Apr, the first exam day'])
  })
  it('leaving it holds all dates of the item as they stand', () => {
    const [item] = plan(short, [{ due: wall('2026-12-01T23:59'), closes: wall('2026-12-03T23:59') }])
    const leave = choicesOf(item!, { source: autumn, target: short }).find(choice => choice.name === 'stay')
    expect(leave!.dates).toEqual({ opens: null, due: item!.due, closes: item!.closes })
  })
  it('what has nothing to settle has no choices', () => {
    const [item] = plan(spring, [{ due: wall('2026-09-11T23:59') }])
    expect(choicesOf(item!, { source: autumn, target: spring })).toEqual([])
    expect(alikeItems([item!], item!)).toEqual([])
  })
  it('the same choice for all alike settles those, and only those', () => {
    const items = plan(
      spring,
      [
        { opens: wall('2026-09-08T08:00') },
        { opens: wall('2026-09-10T09:00') },
        { due: wall('2026-12-04T23:59') },
      ],
      { method: 'offset', days: 161 },
    )
    const alike = alikeItems(items, items[0]!)
    expect(alike.map(item => item.id)).toEqual(['i0', 'i1'])
    expect(
      [...choiceForAll(alike, 'day-before', { source: autumn, target: spring })].map(
        ([, dates]) => dates.opens,
      ),
    ).toEqual(['2027-02-12T08:00', '2027-02-12T09:00'])
  })
  it('whatever the rule, a choice that moves goes to a usable day, and leaves in order what was', () => {
    const moves = ['keep-week', 'stretch', 'offset', 'unchanged'].flatMap(method =>
      [spring, short].flatMap(target =>
        plan(
          target,
          [
            { opens: wall('2026-09-01T08:00'), due: wall('2026-12-04T23:59') },
            { opens: wall('2026-10-12T08:00'), closes: wall('2026-12-11T23:59') },
          ],
          { method, closures: { opens: 'keep', due: 'keep', closes: 'keep' } },
        ).flatMap(item =>
          choicesOf(item, { source: autumn, target }).flatMap(choice =>
            choice.name === 'stay' ? [] : [{ ...choice, target }],
          ),
        ),
      ),
    )
    expect(moves.length).toBeGreaterThan(3)
    for (const { dates, field, target } of moves) {
      expect(isUsable(target, dayOf(dates[field]!))).toBe(true)
      const there = [dates.opens, dates.due, dates.closes].filter(at => at !== null)
      expect(there).toEqual([...there].sort())
    }
  })
})
