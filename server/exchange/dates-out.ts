import type { Knex } from 'knex'
import { validYears } from '../../core/calendar/zone'
import { writeDeadlines } from '../../core/formats/icalendar/write'
import { dateFields } from '../../core/course/dates'
import { writeCsv } from '../../core/formats/sheet/csv'
import { heldWords, sheetColumns } from '../../core/formats/sheet/plan-dates'
import { arrivalState } from '../../core/plan/arrival'
import {
  dateTable,
  deadlinesOf,
  itemsWithDates,
  seenByStudents,
  type DateTable,
} from '../../core/plan/exports'
import { zoneRules } from '../calendars/zones'
import { now } from '../clock'
import { loadOutline } from '../courses/content.queries'
import { loadCourse } from '../courses/courses.queries'
import { courseName } from '../courses/item'
import { loadPlannedDates } from '../plans/compile'
import { writeWorkbook } from './files/xlsx'

const stamp = (): string => now().toISOString().slice(0, 16)

/** A plan's dates, old and new, as a table. */
export async function planDateTable(db: Knex, id: string): Promise<DateTable> {
  const { input, ledger } = await loadPlannedDates(db, id)
  return dateTable(input.brought.merged.nodes, ledger.items, { plan: id, timeZone: input.zone.timeZone })
}
/** The dates that stand in a course now, as a table. */
export async function courseDateTable(db: Knex, id: string): Promise<DateTable> {
  const { term } = await loadCourse(db, id)
  return dateTable(await loadOutline(db, id), null, { timeZone: term.timeZone })
}
export const tableAsCsv = ({ header, rows }: DateTable): string => writeCsv(header, rows)
/** A table of dates as a workbook: real dates, and of a plan's sheet only its new dates may be changed. */
export function tableAsWorkbook({ header, rows }: DateTable): Promise<Buffer> {
  const places = (names: readonly string[]): number[] =>
    header.flatMap((name, at) => (names.includes(name) ? [at] : []))
  const dates = dateFields.map(field => sheetColumns[field])
  const held = places([sheetColumns.held])
  const open = held.length > 0 ? [...places(dates), ...held] : []
  return writeWorkbook('Dates', header, rows, {
    moments: places([...dates, 'Opened', 'Was due', 'Closed']),
    open,
    lists: held.map(column => ({ column, words: heldWords })),
  })
}

/** A plan's new deadlines as iCalendar. */
export async function planDeadlines(db: Knex, id: string): Promise<string> {
  const { plan, input, ledger } = await loadPlannedDates(db, id)
  const name = courseName(await loadCourse(db, plan.targetId))
  const planned = new Map(ledger.items.map(item => [item.id, item]))
  const seen = seenByStudents(input.brought.merged.nodes, node => arrivalState(node, plan.document))
  const items = itemsWithDates(seen).flatMap(item => {
    const is = planned.get(item.lineage)
    return is ? [{ ...item, due: is.due }] : []
  })
  // A date may be kept as it was, years before those that the plan's own zone data reach.
  const zone = zoneRules(input.zone.timeZone, validYears)
  return writeDeadlines(name, deadlinesOf(plan.targetId, name, items), zone, stamp())
}
/** The deadlines that stand in a course now, as iCalendar; what is hidden is nobody's to see there. */
export async function courseDeadlines(db: Knex, id: string): Promise<string> {
  const course = await loadCourse(db, id)
  const name = courseName(course)
  const items = itemsWithDates(seenByStudents(await loadOutline(db, id)))
  const zone = zoneRules(course.term.timeZone, validYears)
  return writeDeadlines(name, deadlinesOf(id, name, items), zone, stamp())
}
