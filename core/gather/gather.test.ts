import { describe, expect, it } from 'vitest'
import { comparableTitle } from '../carry/titles'
import { gather, fieldKey } from './gather'
import { isSheetOfDates, sheetSayings } from './from-sheet'
import { gatheredDocument } from './document'
import { lineItemSayings } from './from-files'
import { zoneRules } from '../../server/calendars/zones'
import type { Row } from '../formats/oneroster/tables'
import { sayingKey, type GatheredItem, type Saying } from './saying'

const item = (identifier: string, title: string, more: Partial<GatheredItem> = {}): GatheredItem => ({
  identifier,
  resource: null,
  title,
  kind: 'assignment',
  values: {},
  ...more,
})
const said = (where: string, more: Partial<Saying> = {}): Saying => ({
  kind: 'line-items',
  file: 'roster.zip',
  where,
  identifier: null,
  title: '',
  values: {},
  ...more,
})
const items = [
  item('i1', 'Week 1: Tide log', { resource: 'r1' }),
  item('i2', 'Problem set'),
  item('i3', 'Problem set'),
  item('i4', 'Chart quiz', { values: { points: '10', due: '2026-09-11T23:59' } }),
]
const metOf = (sayings: readonly Saying[], pairs = {}): string[] =>
  gather(items, sayings, { pairs }).met.map(({ saying, item: { identifier }, how }) =>
    [saying.where, identifier, how].join(' '),
  )

describe('what several files say of the items of a package', () => {
  it('meets an item by identifier, by exactly its title, or by a title that is like it', () => {
    const sayings = [
      said('by-item', { identifier: 'i2' }),
      said('by-resource', { identifier: 'r1' }),
      said('by-title', { title: 'Chart quiz' }),
    ]
    expect(metOf(sayings)).toEqual([
      'by-item i2 identifier',
      'by-resource i1 identifier',
      'by-title i4 title',
    ])
    expect(comparableTitle('3.2 TIDE LOG!')).toBe(comparableTitle('Week 1: Tide log'))
    expect(metOf([said('like', { title: '3.2 TIDE LOG!' })])).toEqual(['like i1 likely'])
  })
  it('never gives two lines of one file to one item, and lets the surer one have it', () => {
    const sayings = [
      said('title', { title: 'Chart quiz' }),
      said('key', { identifier: 'i4', title: 'Other' }),
    ]
    const { met, unmet } = gather(items, sayings)
    expect(met.map(({ saying }) => saying.where)).toEqual(['key'])
    expect(unmet).toMatchObject([{ saying: { where: 'title' }, why: 'taken', alike: 1 }])
    const twoFiles = [said('a', { identifier: 'i4' }), said('b', { identifier: 'i4', file: 'dates.csv' })]
    expect(gather(items, twoFiles).met).toHaveLength(2)
  })
  it('guesses nothing where several items are alike, until one is named by hand', () => {
    const set = said('set', { title: 'Problem set' })
    expect(gather(items, [set]).unmet).toMatchObject([{ why: 'several', alike: 2 }])
    expect(metOf([set], { [sayingKey(set)]: 'i3' })).toEqual(['set i3 hand'])
    const quiz = said('quiz', { title: 'Chart quiz' })
    expect(gather(items, [quiz], { pairs: { [sayingKey(quiz)]: null } }).met).toEqual([])
  })
  it('takes the word of the file that ranks first, names those that say otherwise, and another where one says so', () => {
    const sheet = said('row 2', {
      kind: 'sheet',
      file: 'dates.csv',
      identifier: 'i4',
      values: { due: '2026-09-18T17:00' },
    })
    const line = said('li', {
      identifier: 'i4',
      values: { due: '2026-09-12T23:59', points: '10', category: 'Quizzes' },
    })
    const quiz = (choices = {}) =>
      gather(items, [line, sheet], { choices, packageFile: 'course.imscc' }).items.at(-1)?.fields
    expect(quiz()).toMatchObject({
      due: {
        value: '2026-09-18T17:00',
        file: 'dates.csv',
        others: [
          { value: '2026-09-12T23:59', file: 'roster.zip' },
          { value: '2026-09-11T23:59', file: 'course.imscc' },
        ],
      },
      // Two that say the same contradict nobody.
      points: { value: '10', file: 'roster.zip', others: [] },
      category: { value: 'Quizzes' },
    })
    expect(quiz({ [fieldKey('i4', 'due')]: 'roster.zip' })?.due?.value).toBe('2026-09-12T23:59')
  })
  it('takes an instant of a line item by the clock of the term, and a wall clock as it stands', () => {
    const row = (sourcedId: string, assignDate: string, dueDate: string) =>
      ({
        sourcedId,
        title: '',
        classSourcedId: 'k',
        assignDate,
        dueDate,
        resultValueMax: '',
      }) as Row<'lineItems'>
    const lineItems = [
      // 24 September 2026 is in daylight time: Halifax is three hours behind UTC (IANA tz).
      row('instants', '2026-09-08T11:00:00Z', '2026-09-25T02:59:00.000Z'),
      row('clocks', '', '2026-12-01T17:30'),
      row('days', '2026-09-08', '2026-09-11'),
    ]
    const tables = { lineItems, categories: [], academicSessions: [] }
    const zone = zoneRules('America/Halifax', { from: 2025, to: 2028 })
    expect(lineItemSayings('roster.zip', tables, 'k', zone).map(({ values }) => values)).toEqual([
      { opens: '2026-09-08T08:00', due: '2026-09-24T23:59' },
      { due: '2026-12-01T17:30' },
      { opens: '2026-09-08', due: '2026-09-11' },
    ])
    expect(lineItemSayings('roster.zip', tables, 'another class', zone)).toEqual([])
  })
  it('asks nothing where a day without a time agrees with another file, and takes its time', () => {
    const day = said('li', { identifier: 'i4', values: { due: '2026-09-11' } })
    const time = said('json', {
      kind: 'course-json',
      file: 'c.json',
      identifier: 'i4',
      values: { due: '2026-09-11T17:00' },
    })
    const due = (...sayings: Saying[]) => gather(items, sayings).items.at(-1)?.fields.due
    expect(due(day, time)).toMatchObject({ value: '2026-09-11T17:00', file: 'c.json' })
    const row = { ...day, kind: 'sheet' as const, file: 'dates.csv' }
    expect(due(row, time)).toMatchObject({ value: '2026-09-11T17:00', file: 'dates.csv' })
    const document = gatheredDocument(
      gather(items.slice(0, 1), [
        said('o', { identifier: 'i1', values: { opens: '2026-09-01', due: '2026-09-11' } }),
      ]),
      { classKey: 'c', document: null },
    )
    expect(document.items[0]).toMatchObject({ opens: '2026-09-01T08:00', due: '2026-09-11T23:59' })
  })
})

describe('a sheet of items with their dates', () => {
  const sheet = (header: string[], ...rows: string[][]) =>
    sheetSayings('dates.csv', { header, rows: rows.map((cells, at) => ({ number: at + 2, cells })) })
  it('is known by its columns, in any order', () => {
    expect(isSheetOfDates(['Due date', 'Points', 'Assignment'])).toBe(true)
    expect(isSheetOfDates(['Holiday', 'First day', 'Last day'])).toBe(false)
    expect(isSheetOfDates(['Assignment', 'Points'])).toBe(false)
  })
  it('says nothing where a cell is empty, and that there is no date where one says so', () => {
    const { sayings, unread } = sheet(
      ['Due', 'Out of', 'Opens', 'Item', 'Category', 'Until'],
      ['25/9/2026 17:00', '7.5', '', 'Tide log', 'Logs', 'none'],
      ['', 'ten', 'soon', 'Chart quiz', '', ''],
      ['', '', '', '', '', ''],
    )
    expect(sayings).toMatchObject([
      {
        where: 'row 2',
        title: 'Tide log',
        values: { due: '2026-09-25T17:00', closes: null, points: '7.5', category: 'Logs' },
      },
      { where: 'row 3', title: 'Chart quiz' },
    ])
    expect(sayings[0]?.values).not.toHaveProperty('opens')
    expect(sayings[1]?.values).toEqual({})
    expect(unread.map(({ column, cell }) => `${column}: ${cell}`)).toEqual(['Opens: soon', 'Out of: ten'])
  })
})

describe('the document that says all that was gathered', () => {
  it('has the values that were taken, each category once by its title, and nothing of items that nobody mentions', () => {
    const sayings = [
      said('a', { identifier: 'i1', values: { due: '2026-09-12T23:59', category: 'Tide logs' } }),
      said('b', {
        identifier: 'i2',
        values: { closes: null, category: 'TIDE LOGS', gradingPeriod: 'Autumn' },
      }),
    ]
    const document = gatheredDocument(gather(items.slice(0, 3), sayings), { classKey: 'c', document: null })
    expect(document.categories.map(({ title }) => title)).toEqual(['Tide logs'])
    const [category] = document.categories
    expect(document.items).toMatchObject([
      { identifier: 'i1', due: '2026-09-12T23:59', category: category?.identifier },
      { identifier: 'i2', closes: null, category: category?.identifier, gradingPeriod: 'Autumn' },
    ])
    expect(document.items[0]).not.toHaveProperty('opens')
  })
})
