import knex, { type Knex } from 'knex'
import { migrations } from './migrations'

/** Where the database is; from DB_HOST, DB_PORT, DB_USER, DB_PASSWORD and DB_NAME. */
export interface DatabaseAddress {
  host: string
  port: number
  user: string
  password: string
  database: string
}

export function addressFromEnvironment(
  env: Record<string, string | undefined> = process.env,
): DatabaseAddress {
  const need = (name: string): string => env[name] || fail(name)
  return {
    host: need('DB_HOST'),
    port: Number(need('DB_PORT')),
    user: need('DB_USER'),
    password: need('DB_PASSWORD'),
    database: env.DB_NAME || 'northtide',
  }
}
function fail(name: string): never {
  throw new Error(
    `${name} is not set. ./start sets it; for a server of your own see "Running it for real" in the README.`,
  )
}

/** A pool of connections. Dates stay text, instants are UTC, every transaction reads what is committed. */
export function connect(address: DatabaseAddress): Knex {
  return knex({
    client: 'mysql2',
    connection: {
      ...address,
      charset: 'utf8mb4',
      dateStrings: true,
      timezone: 'Z',
      decimalNumbers: false,
      supportBigNumbers: true,
      bigNumberStrings: true,
    },
    pool: {
      min: 0,
      max: 10,
      afterCreate: (
        connection: { query: (sql: string, done: (error: unknown) => void) => void },
        done: (error: unknown, connection: unknown) => void,
      ) =>
        connection.query(
          'SET SESSION tx_isolation = "READ-COMMITTED", SESSION time_zone = "+00:00", SESSION sql_mode = "STRICT_ALL_TABLES,NO_ZERO_DATE,NO_ZERO_IN_DATE,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION"',
          error => done(error, connection),
        ),
    },
  })
}

let shared: Knex | undefined
/** The application's own pool, opened at first use. */
export const database = (): Knex => (shared ??= connect(addressFromEnvironment()))
export async function closeDatabase(): Promise<void> {
  await shared?.destroy()
  shared = undefined
}

/** Brings the schema up to date. Migrations only go forward. */
export async function migrate(db: Knex): Promise<string[]> {
  const [, names] = (await db.migrate.latest({
    migrationSource: {
      getMigrations: async () => Object.keys(migrations),
      getMigrationName: (name: string) => name,
      getMigration: async (name: string) => ({
        up: migrations[name]!,
        down: async () => {
          throw new Error('migrations only go forward')
        },
      }),
    },
  })) as [number, string[]]
  return names
}

const passing = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD'])
/** One transaction; begun again, up to four times, where the database gave way to another (deadlock, or certification failure in a cluster). */
export async function inTransaction<T>(db: Knex, work: (trx: Knex.Transaction) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await db.transaction(work)
    } catch (error) {
      if (attempt >= 4 || !passing.has((error as { code?: string }).code ?? '')) throw error
    }
  }
}
