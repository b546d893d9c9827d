import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isoOf } from '../../calendar/day'
import { readLimits } from '../limits'
import { guessRoles, tableEvents } from './calendar'
import { writeCsv } from './csv'
import { dateOfCell, orderOf } from './dates'
import { readTable } from './table'

const rowsOf = (text: string | Uint8Array): string[][] => {
  const rows: string[][] = []
  readTable(
    't.csv',
    typeof text === 'string' ? new TextEncoder().encode(text) : text,
    readLimits,
    cells => rows.push(cells),
    header => rows.push([...header]),
  )
  return rows
}
const days = (text: string): string[] => {
  const table = guessRoles('t.csv', rowsOf(text))
  return tableEvents('t.csv', table, table.roles, readLimits).events.map(
    event => `${event.title} ${event.firstDay}${event.lastDay === event.firstDay ? '' : `/${event.lastDay}`}`,
  )
}

describe('a cell that says a date', () => {
  it.each([
    ['2027-02-15', '2027-02-15'],
    ['2027/2/5', '2027-02-05'],
    ['2027-02-15T00:00:00.000Z', '2027-02-15'],
    ['15/2/2027', '2027-02-15'],
    ['15.02.27', '2027-02-15'],
    ['Mon 15/2/2027', '2027-02-15'],
    ['15 February 2027', '2027-02-15'],
    ['Feb 15, 2027', '2027-02-15'],
    ['Monday, 15 Feb 2027', '2027-02-15'],
    ['February 15–19, 2027', '2027-02-15/2027-02-19'],
    ['15/2/2027 - 19/2/2027', '2027-02-15/2027-02-19'],
    ['15 Feb 2027 – 2 March 2027', '2027-02-15/2027-03-02'],
  ])('%s', (cell, said) => {
    const date = dateOfCell(cell, 'day-month')!
    expect(date.first === date.last ? date.first : `${date.first}/${date.last}`).toBe(said)
  })
  it.each([
    '',
    'Reading week',
    '30/2/2027',
    '2027-13-01',
    'February 15',
    'next Friday',
    '15',
    '2027',
    'room 12/3',
    'Feb 30, 2027',
    'x'.repeat(100),
  ])('is not %j', cell => expect(dateOfCell(cell, 'day-month')).toBeNull())
  it('any day written in three ways is read as that day', () => {
    fc.assert(
      fc.property(fc.integer({ min: 10_958, max: 47_481 }), fc.boolean(), (day, dayFirst) => {
        const iso = isoOf(day)
        const [year, month, date] = iso.split('-').map(Number)
        const order = dayFirst ? 'day-month' : 'month-day'
        // The month's name as the platform's own formatter has it (CLDR, in Intl).
        const long = new Intl.DateTimeFormat('en-CA', { dateStyle: 'long', timeZone: 'UTC' }).format(
          new Date(day * 86_400_000),
        )
        for (const cell of [iso, dayFirst ? `${date}/${month}/${year}` : `${month}/${date}/${year}`, long])
          expect(dateOfCell(cell, order)).toEqual({ first: iso, last: iso })
      }),
    )
  })
  it('day or month first: what can be read in one way only decides for all', () => {
    expect(orderOf(['1/2/2027', '15/2/2027'])).toEqual({ order: 'day-month', certain: true })
    expect(orderOf(['1/2/2027', '2/15/2027'])).toEqual({ order: 'month-day', certain: true })
    expect(orderOf(['1/2/2027', '3/4/2027'])).toEqual({ order: 'day-month', certain: false })
    expect(orderOf(['15/2/2027', '2/15/2027', '2/16/2027'])).toEqual({ order: 'month-day', certain: false })
    expect(orderOf(['1.2.2027'])).toEqual({ order: 'day-month', certain: true })
  })
})

describe('a table of dates', () => {
  it('whatever its columns are called and however they stand', () => {
    expect(days('Holiday,Start,End\nBreak,2027-02-15,2027-02-19\nGood day,2027-03-26,\n')).toEqual([
      'Break 2027-02-15/2027-02-19',
      'Good day 2027-03-26',
    ])
    expect(
      days('Port Ellery Institute\n\nUntil;From;Remark;What\n19/2/2027;15/2/2027;closed;Break\n'),
    ).toEqual(['Break 2027-02-15/2027-02-19'])
    expect(
      days(
        'Port Ellery Institute, closures\nDay;What\nMonday, 15 Feb 2027;Heritage day\n26/3/2027;Good day\n',
      ),
    ).toEqual(['Heritage day 2027-02-15', 'Good day 2027-03-26'])
    expect(days('2/15/2027\tBreak\n3/26/2027\tGood day\n')).toEqual([
      'Break 2027-02-15',
      'Good day 2027-03-26',
    ])
    expect(days('Date,Name\n"February 15–19, 2027",Break\n')).toEqual(['Break 2027-02-15/2027-02-19'])
  })
  it('says where a row is wrong, and reads the others', () => {
    const table = guessRoles(
      't.csv',
      rowsOf(
        'Name,Start,End\nBreak,2027-02-15,2027-02-10\n,2027-03-01,\nStorm,soon,\nNone,,\nEnd,2027-04-01,later\nLast,2027-04-09,2027-04-10\nMore,2027-04-19,2027-04-20\n',
      ),
    )
    const { events, findings } = tableEvents('t.csv', table, table.roles, readLimits)
    expect(events.map(event => event.title)).toEqual(['Break', 'Untitled', 'End', 'Last', 'More'])
    expect(findings.map(finding => `${finding.severity}: ${finding.where}: ${finding.message}`)).toEqual([
      'warning: t.csv row 2, End: 2027-02-10 lies before 2027-02-15; the row was read as one day',
      'warning: t.csv row 3, Name: is empty; the event has no name',
      'error: t.csv row 4, Start: "soon" is not a date with a year; the row was left out',
      'warning: t.csv row 5, Start: is empty; the row was left out',
      'warning: t.csv row 6, End: "later" is not a date with a year; the row was read as one day',
    ])
  })
  it('says when day and month cannot be told apart, and is no calendar without dates or names', () => {
    expect(guessRoles('t.csv', rowsOf('Name,Day\nA,1/2/2027\nB,3/4/2027\n')).ambiguous).toBe(true)
    expect(guessRoles('t.csv', rowsOf('Name,Day\nA,1/2/2027\nB,13/4/2027\n')).ambiguous).toBe(false)
    expect(() => guessRoles('t.csv', rowsOf('Name,Room\nA,12\n'))).toThrow('no column holds dates')
    expect(() => guessRoles('t.csv', rowsOf('2027-02-15\n2027-02-16\n'))).toThrow(
      'no column could be the names',
    )
  })
  it('in any encoding and with any line ends is the same table', () => {
    const text = 'Name,Day\r\n"Fête, ""grande""",2027-02-15\r\n'
    const utf16 = Buffer.from(`\uFEFF${text}`, 'utf16le')
    for (const bytes of [
      text,
      `\uFEFF${text}`,
      text.replaceAll('\r\n', '\n'),
      text.replace('\r\n', '\n'),
      utf16,
      Buffer.from(text, 'latin1'),
    ])
      expect(rowsOf(bytes).slice(0, 2)).toEqual([
        ['Name', 'Day'],
        ['Fête, "grande"', '2027-02-15'],
      ])
  })
})

describe('CSV out', () => {
  it('what a spreadsheet would take for a formula is text (OWASP, "CSV Injection"), and every other value comes back as it was', () => {
    // A break before it, a blank, and the full-width signs of East Asian keyboards are taken for the same.
    const formula = /^[\t\r\n]|^\s*[=+\-@＝＋－＠]/u
    const value = fc.oneof(
      fc.string(),
      fc.constantFrom(
        '=1+1',
        '+1',
        '-1',
        '@SUM(A1)',
        '\tx',
        '\r=1',
        ' =1',
        '＝1+1',
        '＠SUM(A1)',
        'a"b',
        'a,b',
        'a\r\nb',
        "=cmd|' /C calc'!A0",
      ),
    )
    fc.assert(
      fc.property(fc.array(fc.tuple(value, value), { minLength: 1, maxLength: 5 }), rows => {
        const back = rowsOf(writeCsv(['one', 'two'], rows)).slice(1)
        const expected = rows.map(row => row.map(cell => (formula.test(cell) ? `'${cell}` : cell)))
        expect(back.flat().every(cell => !formula.test(cell))).toBe(true)
        expect(back).toEqual(expected)
      }),
    )
    expect(writeCsv(['one'], [['\n=1']])).toContain(`"'\n=1"`)
  })
})
