import { describe, expect, it } from 'vitest'
import { zoneRules } from '../../server/calendars/zones'
import { wall } from '../../tests/support/wall'
import { termCalendar, type Meeting } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import { dueAtClassStart, hoursDiffer, withClassStart } from './class-start'
import { planDates, type DatedItem } from './plan'
import { ruleBy, ruleSetSchema, type RuleSet } from './rule'

const meets = (start: string, end: string, ...days: number[]): Meeting[] =>
  days.map(weekday => ({ weekday, start, end }) as Meeting)
const term = (from: string, to: string) =>
  compileTerm(termCalendar.parse({ timeZone: 'UTC', classes: { from, to } }))
const source = term('2026-09-02', '2026-12-04')
const target = term('2027-01-06', '2027-04-09')
const sourceMeetings = meets('09:30', '10:20', 1, 3, 5)
const item = (id: string, due: string | null, kind = 'assignment'): DatedItem => ({
  id,
  kind,
  unit: null,
  opens: null,
  due: due === null ? null : wall(due),
  closes: null,
})
// Mondays of September 2026: 14, 21, 28.
const atStart = [item('a', '2026-09-14T09:30'), item('b', '2026-09-21T09:30')]
const plain = ruleSetSchema.parse({})
const found = (items: DatedItem[], rules: RuleSet = plain) =>
  dueAtClassStart({ source, sourceMeetings, items }, rules)
const planned = (rules: RuleSet, items: DatedItem[], targetMeetings: Meeting[]) =>
  planDates({
    source,
    target,
    sourceMeetings,
    targetMeetings,
    zone: zoneRules('UTC', { from: 2024, to: 2031 }),
    rules,
    items,
  }).items.map(({ due }) => due?.slice(11))

describe('work that was due when class began', () => {
  it('is found by kind; what has no date is no matter, and one at another hour makes it some of the kind', () => {
    expect(found([...atStart, item('c', null), item('q', '2026-09-14T23:59', 'quiz')])).toEqual([
      { kind: 'assignment', items: ['a', 'b'], isWhole: true },
    ])
    const late = item('c', '2026-09-22T09:30')
    expect(found([...atStart, late])).toEqual([{ kind: 'assignment', items: ['a', 'b'], isWhole: false }])
  })
  it('is not asked about where a rule gives it a time already', () => {
    const times = { opens: 'keep', due: 'class-start', closes: 'keep' }
    expect(found(atStart, ruleSetSchema.parse({ rule: ruleBy('keep-week', { times }) }))).toEqual([])
    expect(found(atStart, ruleSetSchema.parse({ rule: ruleBy('none') }))).toEqual([])
  })
  it('follows the start of class of each section: by a rule for the kind where all of it was', () => {
    const rules = withClassStart(plain, found(atStart), atStart)
    expect(Object.keys(rules.kindRules)).toEqual(['assignment'])
    expect(rules.kindRules.assignment).toMatchObject({ method: 'keep-week', times: { due: 'class-start' } })
    expect(planned(rules, atStart, meets('13:00', '13:50', 1, 3, 5))).toEqual(['13:00', '13:00'])
    expect(planned(rules, atStart, sourceMeetings)).toEqual(['09:30', '09:30'])
  })
  it('else by rules for just those items; a rule of their own keeps its method', () => {
    const all = [...atStart, item('c', '2026-09-22T23:59')]
    const before = ruleSetSchema.parse({ itemRules: { b: ruleBy('offset', { days: 126 }) } })
    const rules = withClassStart(before, found(all, before), all)
    expect(Object.keys(rules.kindRules)).toEqual([])
    expect(rules.itemRules.b).toMatchObject({ method: 'offset', times: { due: 'class-start' } })
    expect(planned(rules, all, meets('13:00', '13:50', 1, 3, 5))).toEqual(['13:00', '13:00', '23:59'])
  })
  it('is told only where hours differ', () => {
    expect(hoursDiffer(sourceMeetings, meets('13:00', '13:50', 1, 3, 5))).toBe(true)
    expect(hoursDiffer(sourceMeetings, [...sourceMeetings].reverse())).toBe(false)
    expect(hoursDiffer(sourceMeetings, meets('09:30', '10:20', 1, 2, 3, 4, 5))).toBe(false)
    expect(hoursDiffer(sourceMeetings, [])).toBe(false)
  })
})
