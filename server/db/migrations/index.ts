import type { Knex } from 'knex'
import * as first from './001-first'
import * as uploads from './002-uploads'
import * as officeRules from './003-office-rules'
import * as pairing from './004-pairing'

/** Every migration by name, in order. They only go forward; one that has been released never changes. */
export const migrations: Record<string, (db: Knex) => Promise<void>> = {
  '001-first': first.up,
  '002-uploads': uploads.up,
  '003-office-rules': officeRules.up,
  '004-pairing': pairing.up,
}
