import { describe, expect, it } from 'vitest'
import { zoneRules } from '../../server/calendars/zones'
import { termCalendar, type Meeting } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import { compareMethods, offeredMethods, ruleToBegin } from './fit'
import { patternDates, usualPattern } from './pattern'
import { reasonsOf, type DatedItem, type PlanInput } from './plan'
import { defaultRule, ruleSchemas } from './rule'
import { sentence } from './reasons'
import { wall } from '../../tests/support/wall'

const zone = zoneRules('America/Halifax', { from: 2026, to: 2028 })
const term = (from: string, to: string, more: object = {}) =>
  compileTerm(termCalendar.parse({ name: from, timeZone: 'America/Halifax', classes: { from, to }, ...more }))
const meetings: Meeting[] = [{ weekday: 2, start: '13:00', end: '14:15' }]
const items = (...days: string[]): DatedItem[] =>
  days.map(day => ({ id: day, kind: '', unit: null, opens: null, due: wall(`${day}T23:59`), closes: null }))
const input = (more: Partial<PlanInput>): PlanInput => ({
  source: term('2026-09-02', '2026-12-04'),
  target: term('2027-01-06', '2027-04-09'),
  sourceMeetings: meetings,
  targetMeetings: meetings,
  zone,
  rules: { rule: defaultRule, kindRules: {}, unitRules: {}, itemRules: {} },
  items: items('2026-09-11', '2026-11-20', '2026-12-04'),
  ...more,
})

describe('which method to suggest', () => {
  it('terms of one length: the same week and weekday', () => {
    expect(compareMethods(input({}))).toMatchObject({ suggested: 'keep-week', because: 'same-length' })
  })
  it('a shorter term: another than the default, and the counts say why', () => {
    const fits = compareMethods(input({ target: term('2027-05-10', '2027-06-25') }))
    expect(fits.suggested).toBe('stretch')
    expect(fits.fits.find(fit => fit.method === 'keep-week')!.summary.settle).toBe(2)
    expect(fits.fits.find(fit => fit.method === 'stretch')!.summary.settle).toBe(0)
    // What lands elsewhere than by the rule in force: nothing by that itself, all three without dates.
    expect(fits.fits.map(({ method, moves }) => [method, moves])).toEqual(
      expect.arrayContaining([
        ['keep-week', 0],
        ['none', 3],
      ]),
    )
  })
  it('a longer term: also another, though the default would leave nothing to settle', () => {
    const fits = compareMethods(
      input({ source: term('2027-05-10', '2027-06-25'), items: items('2027-05-14', '2027-06-11') }),
    )
    expect(fits).toMatchObject({ suggested: 'stretch', because: 'other-length' })
  })
  it('a source that is dated for the new term already: its dates stay as they are', () => {
    const dated = input({ items: items('2027-01-15', '2027-02-12', '2027-03-12', '2026-09-11') })
    const names = offeredMethods.map(method => method.name)
    expect(compareMethods(dated, names)).toMatchObject({
      suggested: 'unchanged',
      because: 'already-dated',
    })
    const few = input({ items: items('2027-01-15', '2027-02-12', '2026-09-11', '2026-09-18') })
    expect(compareMethods(few, names).suggested).toBe('keep-week')
  })
  it('never suggests taking dates away, nor meetings where a section has none; the rule in force keeps its parameters', () => {
    const rule = ruleSchemas.offset.parse({ method: 'offset', days: 400 })
    const fits = compareMethods(input({ rules: { ...input({}).rules, rule }, sourceMeetings: [] }))
    expect(fits.suggested).toBe('keep-week')
    expect(fits.fits.find(fit => fit.method === 'none')!.summary).toMatchObject({ dates: 0, none: 3 })
    expect(fits.fits.find(fit => fit.method === 'offset')!.rule).toBe(rule)
  })
})

describe('methods for a unit, a kind or an item', () => {
  const [first = '', second = '', last = ''] = ['2026-09-11', '2026-11-20', '2026-12-04']
  const inUnit = items(first, second, last).map((each, at) => ({ ...each, unit: at < 2 ? 'u1' : 'u2' }))
  const shorter = { target: term('2027-05-10', '2027-06-25'), items: inUnit }
  it('are compared by the dates for which that rule would decide', () => {
    const settles = (key: string) =>
      compareMethods(input(shorter), ['keep-week'], { level: 'unit', key }).fits[0]?.summary
    expect(settles('u1')).toMatchObject({ dates: 2, settle: 1 })
    expect(settles('u2')).toMatchObject({ dates: 1, settle: 1 })
    expect(settles('u3')).toMatchObject({ dates: 0, settle: 0 })
  })
  it('begin with what the terms give them, and are not offered where they give nothing', () => {
    const { source, target } = input({})
    expect(ruleToBegin('anchor', defaultRule, { source, target })).toBeNull()
    const days = (date: string) => ({ milestones: [{ key: 'add-drop', name: 'Add or drop', date }] })
    const terms = {
      source: term('2026-09-02', '2026-12-04', days('2026-09-16')),
      target: term('2027-01-06', '2027-04-09', days('2027-01-20')),
    }
    expect(ruleToBegin('anchor', defaultRule, terms)).toMatchObject({ milestone: 'add-drop' })
    expect(offeredMethods.map(method => method.name)).not.toContain('set')
    for (const { name, asks, parameters } of offeredMethods)
      for (const ask of asks ?? []) expect([name, ask.name in parameters]).toEqual([name, true])
  })
})

describe('dates by a pattern', () => {
  const target = term('2027-01-06', '2027-04-09', {
    closures: [
      { from: '2027-02-15', to: '2027-02-19', name: 'Study week', kind: 'break' },
      { from: '2027-03-26', to: '2027-03-29', name: 'Spring closure', kind: 'holiday' },
    ],
    runsAs: [{ date: '2027-03-30', weekday: 1, name: 'Tuesday on a Monday timetable' }],
  })
  const units = Array.from({ length: 15 }, (_, at) => `u${at + 1}`)
  const planned = patternDates({
    target,
    meetings,
    zone,
    pattern: usualPattern,
    units,
    items: [...units.map(unit => ({ id: unit, unit })), { id: 'loose', unit: null }],
  })
  it('unit k is teaching week k, opens Monday 08:00, due the Monday after', () => {
    expect(planned[0]).toMatchObject({
      opens: '2027-01-04T08:00',
      due: '2027-01-11T23:59',
      closes: null,
      flags: [],
    })
    // Study week holds no class day, so unit 7 is the week after it.
    expect(planned[6]).toMatchObject({ opens: '2027-02-22T08:00', due: '2027-03-01T23:59' })
  })
  it('keeps clear of closures, as dates that cross do, and says so when there are more units than weeks', () => {
    expect(planned[10]).toMatchObject({ due: '2027-03-30T23:59', flags: ['swap-day'] })
    expect(planned[14]!.flags).toContain('past-end')
    expect(planned[15]).toMatchObject({ id: 'loose', opens: null, due: null, closes: null, flags: [] })
  })
  it('gives a reason for every date', () => {
    expect(reasonsOf(planned[0]!).map(sentence)[0]).toBe(
      'Unit 1: opening on the Monday of teaching week 1, which starts Mon 4 Jan: Mon 4 Jan 08:00.',
    )
    for (const item of planned)
      for (const field of ['opens', 'due'] as const)
        expect(item.crossed[field].reasons.length > 0).toBe(item[field] !== null)
  })
})
