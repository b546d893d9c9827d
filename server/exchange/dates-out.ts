import type { Knex } from 'knex'
import { itemsWithDates, dateTable, deadlinesOf } from '../../core/plan/exports'
import { sourceOutline } from '../../core/plan/compile'
import { writeDeadlines } from '../../core/formats/icalendar/write'
import { writeCsv } from '../../core/formats/sheet/csv'
import { writeWorkbook } from './files/xlsx'
import { findCourse } from '../courses/reading'
import { datesOf, zoneFor } from '../plans/plans'
import { now } from '../clock'
import { loadCalendar, loadOutline } from '../courses/courses.queries'

const stamp = (): string => now().toISOString().slice(0, 16)

interface DateRows {
  header: string[]
  rows: string[][]
}
/** A plan's dates, old and new. */
export async function planDates(db: Knex, id: string): Promise<DateRows> {
  const { input, ledger } = await datesOf(db, id)
  return dateTable(sourceOutline(input).nodes, ledger.items)
}
/** The dates that stand in a course now. */
export const courseDates = async (db: Knex, id: string): Promise<DateRows> =>
  dateTable(await loadOutline(db, id), null)
export const datesAsCsv = ({ header, rows }: DateRows): string => writeCsv(header, rows)
export const datesAsWorkbook = ({ header, rows }: DateRows): Promise<Buffer> =>
  writeWorkbook('Dates', header, rows)
/** A plan's new deadlines as iCalendar. */
export async function planCalendar(db: Knex, id: string): Promise<string> {
  const { plan, input, ledger } = await datesOf(db, id)
  const course = await findCourse(db, plan.targetId)
  const planned = new Map(ledger.items.map(item => [item.id, item]))
  const items = itemsWithDates(sourceOutline(input).nodes)
    .filter(item => planned.has(item.lineage))
    .map(item => ({ ...item, due: planned.get(item.lineage)!.due }))
  return writeDeadlines(course.name, deadlinesOf(plan.targetId, course.name, items), input.zone, stamp())
}
/** The deadlines that stand in a course now, as iCalendar. */
export async function courseCalendar(db: Knex, id: string): Promise<string> {
  const course = await findCourse(db, id)
  return writeDeadlines(
    course.name,
    deadlinesOf(id, course.name, itemsWithDates(await loadOutline(db, id))),
    zoneFor(await loadCalendar(db, id)),
    stamp(),
  )
}
