import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { wall } from '../../../tests/support/wall'
import { item as node } from '../../../tests/support/outline'
import { planDates } from '../../dates/plan'
import { ruleSetSchema } from '../../dates/rule'
import { termCalendar } from '../../calendar/schema'
import { compileTerm } from '../../calendar/term'
import { dateTable } from '../../plan/exports'
import { writeCsv } from './csv'
import { compareSheet, momentOfCell, type SheetItem } from './plan-dates'

const term = compileTerm(
  termCalendar.parse({ timeZone: 'America/Halifax', classes: { from: '2027-01-06', to: '2027-04-13' } }),
)
const item = (id: string, due: string | null, more: Partial<SheetItem> = {}): SheetItem => ({
  id,
  title: `Item ${id}`,
  held: false,
  opens: null,
  due: due === null ? null : wall(due),
  closes: null,
  ...more,
})
const items = [
  item('a', '2027-02-05T23:59'),
  item('b', '2027-02-12T17:00'),
  item('c', null),
  item('d', '2027-03-01T12:00', { held: true }),
]
const header = ['Item', 'Due', 'Held', 'Key', 'Plan']
const compare = (...rows: string[][]) => compareSheet('s.csv', [header, ...rows], { plan: 'p1', items, term })
const dues = (...rows: string[][]) => compare(...rows).changes.map(({ id, is }) => [id, is?.due ?? is])

describe('a cell of a sheet that came back', () => {
  it.each([
    ['2027-02-05 23:59', '2027-02-05T23:59'],
    ['2027-02-05T23:59', '2027-02-05T23:59'],
    ['2027-02-05', '2027-02-05T08:00'],
    ['5/2/2027 9:30', '2027-02-05T09:30'],
    ['5/2/2027 11:59:00 PM', '2027-02-05T23:59'],
    ['5 Feb 2027, 12:00 am', '2027-02-05T00:00'],
    ['Fri 5 February 2027 17:00', '2027-02-05T17:00'],
    // A date that lost its format: day 46 058 is 5 February 2026 (ECMA-376 part 1, §18.17.4.1).
    ['46423.99930555555', '2027-02-05T23:59'],
    ['46423', '2027-02-05T00:00'],
  ])('%s', (cell, at) => expect(momentOfCell(cell, 'day-month', '08:00')).toBe(at))
  it.each(['', ' ', '–', 'none', 'No date'])('%j is no date', cell =>
    expect(momentOfCell(cell, 'day-month', '08:00')).toBeNull(),
  )
  it.each(['soon', '31 Feb 2027', '2027-02-05 25:00', '5/2/2027 13:00 pm', '=TODAY()', '5 to 7 Feb 2027'])(
    '%j is neither',
    cell => expect(momentOfCell(cell, 'day-month', '08:00')).toBeUndefined(),
  )
})

describe('a sheet that came back', () => {
  it('changes what it says otherwise; without a time of day the item keeps its own', () => {
    expect(
      dues(
        ['', '2027-02-08', '', 'a', 'p1'],
        ['', '2027-02-12 17:00', 'no', 'b', 'p1'],
        ['', '2027-03-03', '', 'c', 'p1'],
      ),
    ).toEqual([
      ['a', '2027-02-08T23:59'],
      ['c', '2027-03-03T23:59'],
    ])
  })
  it('takes a date away where the cell is empty, holds with yes and lets go with no', () => {
    const { changes, unchanged, absent } = compare(
      ['', '', '', 'a', 'p1'],
      ['', '2027-02-12 17:00', 'yes', 'b', 'p1'],
      ['', '2027-03-01 12:00', 'No', 'd', 'p1'],
    )
    expect(changes.map(({ id, is }) => [id, is])).toEqual([
      ['a', { opens: null, due: null, closes: null }],
      ['b', { opens: null, due: '2027-02-12T17:00', closes: null }],
      ['d', null],
    ])
    expect([unchanged, absent]).toEqual([0, 1])
  })
  it('says which rows do not count, and why', () => {
    const { problems, changes } = compare(
      ['', 'soon', '', 'a', 'p1'],
      ['', '2027-02-08', '', 'b', 'p2'],
      ['', '2027-02-08', '', 'zz', 'p1'],
      ['', '2072-02-08', '', 'c', 'p1'],
      ['', '2027-03-02', '', 'd', 'p1'],
      ['', '2027-03-09', '', 'd', 'p1'],
      ['', '', '', '', ''],
    )
    expect(problems.map(({ row, message }) => `${row} ${message}`)).toEqual([
      '2 Due: “soon” is not a date.',
      '3 This row is of another plan.',
      '4 No item of this plan has this key.',
      expect.stringMatching(/^5 Due: Mon 8 Feb 2072 cannot be meant/),
      '7 This item stands in the sheet twice; its first row counts.',
    ])
    expect(changes.map(({ id, row }) => [id, row])).toEqual([['d', 6]])
  })
  it('reads day and month as most of its dates say, else as the plan has them', () => {
    expect(dues(['', '2/5/2027 23:59', '', 'a', 'p1'], ['', '2/15/2027 17:00', '', 'b', 'p1'])).toEqual([
      ['b', '2027-02-15T17:00'],
    ])
    expect(dues(['', '2/5/2027 23:59', '', 'a', 'p1'], ['', '3/2/2027 12:00', '', 'd', 'p1'])).toEqual([
      ['d', '2027-03-02T12:00'],
    ])
  })
  it('is refused where it has no keys or no dates', () => {
    const rows = [['Item', 'When']]
    expect(() => compareSheet('x.csv', rows, { plan: 'p1', items, term })).toThrow('no column “Key”')
    expect(() => compareSheet('x.csv', [], { plan: 'p1', items, term })).toThrow('no column “Key”')
  })
  it('changes nothing where it came back as it went', () => {
    const nodes = items.map(({ id, title }) =>
      node(id, { title: `=${title}`, due: wall('2026-10-02T23:59'), kind: 'quiz' }),
    )
    const planned = planDates({
      source: term,
      target: term,
      sourceMeetings: [],
      targetMeetings: [],
      zone: { timeZone: 'UTC', years: { from: 1970, to: 2199 }, offset: 0, transitions: [] },
      rules: ruleSetSchema.parse({
        rule: { method: 'offset', days: 126 },
        itemRules: { a: { method: 'none' } },
      }),
      items: nodes.map(each => ({ ...each, id: each.lineage, kind: 'quiz' })),
    }).items
    const { header: names, rows } = dateTable(nodes, planned, { plan: 'p1', timeZone: 'UTC' })
    const { data } = Papa.parse<string[]>(writeCsv(names, rows).slice(1))
    expect(data[1]?.[1]).toBe("'=Item a")
    const standing = planned.map(each => ({ ...each, title: '', held: false }))
    expect(compareSheet('s.csv', data, { plan: 'p1', items: standing, term })).toEqual({
      changes: [],
      problems: [],
      unchanged: 4,
      absent: 0,
    })
  })
})
