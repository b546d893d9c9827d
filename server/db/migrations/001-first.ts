import type { Knex } from 'knex'
import { tableOptions } from './columns'
import { courses } from './first/courses'
import { exchange } from './first/exchange'
import { people } from './first/people'
import { plans } from './first/plans'
import { registrar } from './first/registrar'
import { sharing } from './first/sharing'
import { studentData } from './first/student-data'

/** The first schema, by subject; a table stands after those it names. */
export async function firstSchema(db: Knex): Promise<void> {
  const tables = [people, courses, studentData, plans, sharing, exchange, registrar].flat()
  for (const table of tables) await db.raw(`${table} ${tableOptions}`)
}
