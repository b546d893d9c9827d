import type { Knex } from 'knex'
import { itemsWithDates, dateTable, deadlinesOf } from '../../core/plan/exports'
import { writeDeadlines } from '../../core/formats/icalendar/write'
import { writeCsv } from '../../core/formats/sheet/csv'
import { findCourse } from './reading'
import { datesOf, zoneFor } from './plans'
import { now } from './today'
import { loadCalendar, loadOutline } from '../db/queries/courses'

const stamp = (): string => now().toISOString().slice(0, 16)

/** A plan's dates, old and new, as CSV. */
export async function planCsv(db: Knex, id: string): Promise<string> {
  const { input, ledger } = await datesOf(db, id)
  const { header, rows } = dateTable(input.source.nodes, ledger.items)
  return writeCsv(header, rows)
}
/** A plan's new deadlines as iCalendar. */
export async function planCalendar(db: Knex, id: string): Promise<string> {
  const { plan, input, ledger } = await datesOf(db, id)
  const course = await findCourse(db, plan.targetId)
  const planned = new Map(ledger.items.map(item => [item.id, item]))
  const items = itemsWithDates(input.source.nodes).filter(item => planned.has(item.lineage)).map(item => ({ ...item, due: planned.get(item.lineage)!.due }))
  return writeDeadlines(course.name, deadlinesOf(plan.targetId, course.name, items), input.zone, stamp())
}
/** The deadlines that stand in a course now, as iCalendar. */
export async function courseCalendar(db: Knex, id: string): Promise<string> {
  const course = await findCourse(db, id)
  return writeDeadlines(course.name, deadlinesOf(id, course.name, itemsWithDates(await loadOutline(db, id))), zoneFor(await loadCalendar(db, id)), stamp())
}
/** The dates that stand in a course now, as CSV. */
export async function courseCsv(db: Knex, id: string): Promise<string> {
  const { header, rows } = dateTable(await loadOutline(db, id), null)
  return writeCsv(header, rows)
}
