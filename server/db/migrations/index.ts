import type { Knex } from 'knex'
import * as first from './001-first'
import * as years from './002-years'

/** Every migration by name, in order. They only go forward; one that has been released never changes. */
export const migrations: Record<string, (db: Knex) => Promise<void>> = {
  '001-first': first.up,
  '002-years': years.up,
}
