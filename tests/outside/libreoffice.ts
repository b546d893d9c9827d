// Class days against LibreOffice Calc: a sheet with NETWORKDAYS.INTL and WORKDAY.INTL (OpenFormula §6.10.12 and §6.10.19) is written
// as flat ODF (where LibreOffice keeps them as COM.MICROSOFT.…), computed by LibreOffice, and compared with ours. Run by ./test where soffice is installed.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { isoOf, type Weekday } from '../../core/calendar/day'
import { compileTerm } from '../../core/calendar/term'
import { anyCalendar } from '../support/arbitraries'

const serial = (day: number): number => day + 25569 // ODF's null date is 1899-12-30
const terms = fc
  .sample(anyCalendar, { numRuns: 200, seed: 2027 })
  .map(calendar => ({ calendar: { ...calendar, runsAs: [] } }))
  .map(({ calendar }) => ({ calendar, term: compileTerm(calendar) }))
  .filter(({ term }) => term.classDays.length > 0)
const rows = terms.flatMap(({ calendar, term }) => {
  const weekend = ([1, 2, 3, 4, 5, 6, 7] as Weekday[])
    .map(weekday => (calendar.teachingWeekdays.includes(weekday) ? '0' : '1'))
    .join('')
  const closed = term.closures.flatMap(closure =>
    Array.from({ length: closure.to - closure.from + 1 }, (_, at) => serial(closure.from + at)),
  )
  const rest = `"${weekend}"${closed.length ? `;{${closed.join('|')}}` : ''}`
  const n = Math.ceil(term.classDays.length / 2)
  return [
    {
      formula: `COM.MICROSOFT.NETWORKDAYS.INTL(${serial(term.classes.from)};${serial(term.classes.to)};${rest})`,
      expected: String(term.classDays.length),
    },
    {
      formula: `TEXT(COM.MICROSOFT.WORKDAY.INTL(${serial(term.classes.from - 1)};${n};${rest});"YYYY-MM-DD")`,
      expected: isoOf(term.classDays[n - 1]!),
    },
  ]
})
const cell = (formula: string): string =>
  `<table:table-row><table:table-cell table:formula="of:=${formula.replaceAll('&', '&amp;').replaceAll('"', '&quot;')}" office:value-type="float"/></table:table-row>`
const sheet = `<?xml version="1.0" encoding="UTF-8"?>
<office:document xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:of="urn:oasis:names:tc:opendocument:xmlns:of:1.2" office:version="1.3" office:mimetype="application/vnd.oasis.opendocument.spreadsheet"><office:body><office:spreadsheet><table:table table:name="days">${rows.map(row => cell(row.formula)).join('')}</table:table></office:spreadsheet></office:body></office:document>`

const folder = mkdtempSync(join(tmpdir(), 'nt-calc.'))
try {
  writeFileSync(join(folder, 'days.fods'), sheet)
  execFileSync(
    'soffice',
    [
      `-env:UserInstallation=file://${folder}/profile`,
      '--headless',
      '--convert-to',
      'csv',
      '--outdir',
      folder,
      join(folder, 'days.fods'),
    ],
    { stdio: 'pipe', timeout: 120_000 },
  )
  const computed = readFileSync(join(folder, 'days.csv'), 'utf8').trim().split('\n')
  const wrong = rows.flatMap((row, at) =>
    computed[at] === row.expected ? [] : [`${row.formula} is ${computed[at]}, ours ${row.expected}`],
  )
  if (computed.length !== rows.length || wrong.length > 0) {
    console.error(wrong.slice(0, 5).join('\n') || `${computed.length} rows for ${rows.length}`)
    process.exitCode = 1
  } else console.log(`${rows.length} formulas of ${terms.length} calendars agree`)
} finally {
  rmSync(folder, { recursive: true, force: true })
}
