import type { Knex } from 'knex'
import { termCalendar, type TermCalendar } from '../../core/calendar/schema'
import { jsonOf } from '../db/rows'

/** The calendar of a term, by its code. */
export async function loadTermCalendar(db: Knex, code: string): Promise<TermCalendar> {
  const row = await db('terms').where({ code }).first('calendar')
  if (!row) throw new Error(`there is no term ${code}`)
  return termCalendar.parse(jsonOf(row.calendar))
}
