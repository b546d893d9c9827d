import type { TermCalendar } from '../../../core/calendar/schema'
import { finding } from '../../../core/formats/findings'
import { cartridgeFolder, readCartridge } from '../../../core/formats/cartridge/read'
import { kindOfDocument, readCourseDocument, readTermCalendar } from '../../../core/formats/json/documents'
import { isTimeZone } from '../../calendars/zones'
import { readCalendar, type CalendarOptions } from '../../../core/formats/icalendar/read'
import { kindOfArchive, kindOfFile } from '../../../core/formats/kinds-of-file'
import { readLimits, type ReadLimits } from '../../../core/formats/limits'
import { FormatRefusal } from '../../../core/formats/refusal'
import { readOneRoster, rosterFolder, type Roster } from '../../../core/formats/oneroster/read'
import type { TableName } from '../../../core/formats/oneroster/tables'
import { guessRoles, tableEvents, type DateTable } from '../../../core/formats/sheet/calendar'
import { readTable } from '../../../core/formats/sheet/table'
import { lineItemTables, type Contribution } from '../../../core/gather/contribution'
import { documentSayings, itemsOfPackage } from '../../../core/gather/from-files'
import { isSheetOfDates, sheetSayings } from '../../../core/gather/from-sheet'
import { outlineOf, type FileReport } from '../../../core/formats/report'
import { isWorkbook, readWorkbook } from './xlsx'
import { openZip, type Source } from './zip'

export interface ReadFileOptions extends Pick<CalendarOptions, 'from' | 'to' | 'local'> {
  limits?: ReadLimits
  /** Told of parts done and parts in all, in bytes or events. */
  progress?: (done: number, total: number) => void
}

const startsLike = (source: Source, text: string): boolean =>
  source.read(0, Math.min(source.size, text.length)).toString('latin1') === text

/** The report, and what only the application shows of a cartridge: its title, version and size. */
export interface FileRead extends FileReport {
  detail: {
    title?: string
    version?: string
    table?: DateTable
    offered?: readonly TableName[]
    /** What it has to say of a course, beside what others say. */
    contribution?: Contribution
    /** A term calendar, whole. */
    calendar?: TermCalendar
  }
}

/** A bundle of more line items is one of an institution: its office cuts it to a course. */
const lineItemsAtMost = 20_000
function withLineItems(roster: Roster): Pick<FileRead['detail'], 'contribution'> {
  const tables = roster.lineItems.length > lineItemsAtMost ? null : lineItemTables(roster)
  return tables ? { contribution: { as: 'line-items', tables } } : {}
}

/** What a table of dates may be at most. */
const tableBytes = 4 * 1024 * 1024
const tableRows = 5000

/** A workbook's moments: of midnight it knows the day alone, and where days are asked for, of every moment. */
const asDays = (rows: readonly string[][], which: RegExp): string[][] =>
  rows.map(cells => cells.map(cell => cell.replace(which, '$1')))
const midnight = /^(\d{4}-\d\d-\d\d)T00:00$/
const anyMoment = /^(\d{4}-\d\d-\d\d)T\d\d:\d\d$/

/** Days without classes, or items with their dates: these have times of day. */
function readTableOfDates(report: FileRead, file: string, rows: string[][], limits: ReadLimits): void {
  const table = guessRoles(file, asDays(rows, anyMoment))
  const moments = asDays(rows, midnight)
  const timed = {
    header: table.header,
    rows: table.rows.map(({ number, cells }) => ({ number, cells: moments[number - 1] ?? cells })),
  }
  const { events, findings } = tableEvents(file, table, table.roles, limits)
  const name = (column: number): string => table.header[column] ?? ''
  const { title, first, last } = table.roles
  const columns = { title: name(title), first: name(first), last: last === null ? null : name(last) }
  report.findings.push(finding('table-of-dates', file, columns))
  if (table.ambiguous) report.findings.push(finding('day-or-month-first', file))
  report.findings.push(...findings)
  Object.assign(report, {
    events,
    counts: { rows: table.rows.length, events: events.length },
    detail: {
      table,
      ...(isSheetOfDates(table.header) && { contribution: { as: 'sheet', ...sheetSayings(file, timed) } }),
    },
  })
}

/** Northtide's own JSON: a term calendar, whose closures are shown as days, or a course, counted. */
function readJson(report: FileRead, file: string, bytes: Uint8Array): void {
  const kind = kindOfDocument(file, bytes)
  if (kind === null) throw new FormatRefusal('nothing-known', file, { looksLike: 'a JSON document' })
  report.format = kind
  if (kind === 'term-calendar') {
    const calendar = readTermCalendar(file, bytes, isTimeZone)
    const closures = calendar.closures.map(({ name, from, to }) => ({
      title: name,
      firstDay: from,
      lastDay: to,
    }))
    Object.assign(report, {
      events: closures,
      counts: { closures: closures.length, milestones: calendar.milestones.length },
      detail: { title: calendar.name, calendar },
    })
    return
  }
  const document = readCourseDocument(file, bytes)
  const { class: classKey, items, categories, meetings } = document
  Object.assign(report, {
    counts: { items: items.length, categories: categories.length, meetings: meetings.length },
    detail: {
      title: `Course JSON of class ${classKey}`,
      contribution: { as: 'course-json', classKey, sayings: documentSayings(file, document) },
    },
  })
}

/** Tells what a file is by what is in it, never by its name, and reads it. Nothing is stored; a file that is refused is a report too. */
export async function readFile(
  file: string,
  source: Source,
  { limits = readLimits, progress = () => {}, ...range }: ReadFileOptions = {},
): Promise<FileRead> {
  const report: FileRead = {
    file,
    format: null,
    outcome: 'read',
    findings: [],
    outline: [],
    counts: {},
    events: [],
    detail: {},
  }
  try {
    if (source.size === 0) throw new FormatRefusal('empty', file)
    if (startsLike(source, 'PK')) {
      const archive = await openZip(file, source, limits)
      if (cartridgeFolder(archive) !== null) {
        report.format = 'common-cartridge'
        const read = await readCartridge(archive, { courseKey: file, limits, progress })
        Object.assign(report, {
          ...outlineOf(read),
          findings: read.findings,
          detail: {
            title: read.content.title,
            version: read.version,
            contribution: { as: 'package', items: itemsOfPackage(read.content) },
          },
        })
      } else if (rosterFolder(archive) !== null) {
        report.format = 'oneroster'
        const read = await readOneRoster(archive, limits, progress)
        Object.assign(report, {
          findings: read.findings,
          detail: { offered: read.offered, ...withLineItems(read.roster) },
          counts: Object.fromEntries(
            Object.entries(read.roster)
              .filter(([table]) => read.modes[table as keyof typeof read.modes] !== 'absent')
              .map(([table, rows]) => [table, rows.length]),
          ),
        })
      } else if (isWorkbook(archive)) {
        const { rows, sheet, others } = await readWorkbook(
          file,
          archive,
          source.read(0, source.size),
          limits,
          'moments',
        )
        readTableOfDates(report, file, rows, limits)
        if (others > 0) report.findings.push(finding('sheets-unread', file, { sheet, others }))
      } else
        throw new FormatRefusal('zip-of-neither', file, { looksLike: kindOfArchive(archive.entries.keys()) })
    } else {
      if (source.size > limits.textBytes)
        throw new FormatRefusal('too-large', file, { bytes: limits.textBytes })
      const start = source
        .read(0, Math.min(source.size, 4096))
        .toString('latin1')
        .replace(/\0|^(\xEF\xBB\xBF|\xFF\xFE|\xFE\xFF)/g, '')
      if (/^\s*BEGIN:V/i.test(start)) {
        report.format = 'icalendar'
        Object.assign(report, readCalendar(file, source.read(0, source.size), { ...range, limits, progress }))
      } else if (/^\s*\{/.test(start)) readJson(report, file, source.read(0, source.size))
      else if (
        kindOfFile(start) !== null ||
        /[\x01-\x08\x0E-\x1F]/.test(start) ||
        start.trimStart().startsWith('<')
      )
        throw new FormatRefusal('nothing-known', file, { looksLike: kindOfFile(start) })
      else {
        if (source.size > tableBytes) throw new FormatRefusal('table-too-large', file, { bytes: tableBytes })
        const rows: string[][] = []
        const row = (cells: string[], number: number): void => {
          while (rows.length < number - 1) rows.push([])
          rows.push(cells)
        }
        const { encoding } = readTable(
          file,
          source.read(0, source.size),
          { ...limits, rows: tableRows },
          row,
          header => row([...header], 1),
        )
        readTableOfDates(report, file, rows, limits)
        if (encoding !== null) report.findings.push(finding('encoding', file, { encoding }))
      }
    }
  } catch (error) {
    if (!(error instanceof FormatRefusal)) throw error
    report.outcome = 'refused'
    const { where, reason } = error
    report.findings.push(finding('refused', where, { reason, wayOn: error.wayOn }))
  }
  return report
}
