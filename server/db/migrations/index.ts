import type { Knex } from 'knex'
import { firstSchema } from './001-first'
import { boundYears } from './002-years'
import { endingShares } from './003-sharing'
import { forgetCodes } from './004-log-codes'

/** Every migration by name, in order. They only go forward; one that has been released never changes. */
export const migrations: Record<string, (db: Knex) => Promise<void>> = {
  '001-first': firstSchema,
  '002-years': boundYears,
  '003-sharing': endingShares,
  '004-log-codes': forgetCodes,
}
