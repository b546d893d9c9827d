import type { Knex } from 'knex'
import { firstSchema } from './001-first'
import { boundYears } from './002-years'
import { endingShares } from './003-sharing'

/** Every migration by name, in order. They only go forward; one that has been released never changes. */
export const migrations: Record<string, (db: Knex) => Promise<void>> = {
  '001-first': firstSchema,
  '002-years': boundYears,
  '003-sharing': endingShares,
}
