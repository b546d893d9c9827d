import knex, { type Knex } from 'knex'
import { migrations } from './migrations'
import './tables'

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

/** A column of an answer, as mysql2 hands it to `typeCast`. */
interface Field {
  type: string
  length: number
  string: () => string | null
}
/**
 * The edge of the database: BOOLEAN (TINYINT(1)) becomes true or false, a count or a size (BIGINT, below 2^53 here) a number.
 * Everything else comes as the driver has it: decimals, dates and stamps as text.
 */
function typeCast(field: Field, next: () => unknown): unknown {
  if (field.type !== 'LONGLONG' && !(field.type === 'TINY' && field.length === 1)) return next()
  const text = field.string()
  if (text === null) return null
  return field.type === 'TINY' ? text === '1' : Number(text)
}

const session = [
  'tx_isolation = "READ-COMMITTED"',
  'time_zone = "+00:00"',
  'sql_mode = "STRICT_ALL_TABLES,NO_ZERO_DATE,NO_ZERO_IN_DATE,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION"',
].map(setting => `SESSION ${setting}`)

interface Connection {
  query: (sql: string, done: (error: unknown) => void) => void
}
/** A pool of connections. Dates stay text, instants are UTC, every transaction reads what is committed. */
export function connect(address: DatabaseAddress): Knex {
  return knex({
    client: 'mysql2',
    // Knex would write to the console, in words of its own, whatever it meets; what matters reaches whoever asked, as an error.
    log: { warn: noWords, error: noWords, deprecate: noWords, debug: noWords },
    connection: { ...address, charset: 'utf8mb4', dateStrings: true, timezone: 'Z', typeCast },
    // A request waits so long for a connection, and then tells that the database does not answer.
    acquireConnectionTimeout: 20_000,
    pool: {
      min: 0,
      max: 10,
      afterCreate: (connection: Connection, done: (error: unknown, connection: unknown) => void) =>
        connection.query(`SET ${session.join(', ')}`, error => done(error, connection)),
    },
  })
}

const noWords = (): void => {}

let shared: Knex | undefined
/** The application's own pool, opened at first use. */
export const database = (): Knex => (shared ??= connect(addressFromEnvironment()))
export async function closeDatabase(): Promise<void> {
  await shared?.destroy()
  shared = undefined
}

const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(migrations)),
  getMigrationName: name => name,
  getMigration: name => {
    const up = migrations[name]
    if (!up) throw new Error(`there is no migration ${name}`)
    return Promise.resolve({ up, down: () => Promise.reject(new Error('migrations only go forward')) })
  },
}
/** Brings the schema up to date; answers the names of the migrations it took. They only go forward. */
export async function migrate(db: Knex): Promise<string[]> {
  await refuseTrialDatabase(db)
  const [, names] = (await db.migrate.latest({ migrationSource })) as [number, string[]]
  return names
}
/** The schemas tried before the first one that counts are not carried forward: no installation had them. */
async function refuseTrialDatabase(db: Knex): Promise<void> {
  if (!(await db.schema.hasTable('slots'))) return
  throw new Error(
    'This database was made by a trial version and cannot be brought up to date. Begin a new one: ./start --fresh',
  )
}
