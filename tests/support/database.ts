import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Knex } from 'knex'
import { loadDemo } from '../../demo/load'
import { connect, type DatabaseAddress } from '../../server/db/connection'

// By this the demo's phone numbers are known, in the tests' own process and in the applications they start.
process.env.NORTHTIDE_PHONE_KEY ??= 'a key for tests'
const script = fileURLToPath(new URL('../../scripts/mariadb', import.meta.url))

/** A MariaDB server for tests: the one that ./test has started (DB_* are set), else one of our own. Returns how to stop it. */
export function useServer(): () => void {
  process.env.NORTHTIDE_TEST_RUN ??= String(process.pid)
  if (process.env.DB_PORT) return () => {}
  const folder = mkdtempSync(join(tmpdir(), 'nt-test.'))
  execFileSync(script, ['start', folder], {
    stdio: 'inherit',
    env: { ...process.env, NORTHTIDE_DB_THROWAWAY: '1' },
  })
  for (const line of readFileSync(join(folder, 'env'), 'utf8').split('\n')) {
    const [name, value] = line.split('=', 2)
    if (name && value) process.env[name] = value
  }
  return () => {
    execFileSync(script, ['drop', folder], { stdio: 'inherit' })
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Keeps the content of a database aside, in one of its own. */
export async function keepAside(db: Knex, name: string, aside: string): Promise<void> {
  await db.raw('DROP DATABASE IF EXISTS ??', [aside])
  await db.raw('CREATE DATABASE ?? CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci', [aside])
  for (const table of await tablesOf(db, name))
    await db.raw('CREATE TABLE ??.?? AS SELECT * FROM ??.??', [aside, table, name, table])
}
/** Puts back what was kept aside: every row as it was, whatever has been done since. */
export async function putBack(db: Knex, name: string, aside: string): Promise<void> {
  const tables = await tablesOf(db, name)
  await db.transaction(async trx => {
    // One connection throughout, so that the switch holds for all of it.
    await trx.raw('SET FOREIGN_KEY_CHECKS = 0')
    for (const table of tables) await trx.raw('DELETE FROM ??.??', [name, table])
    for (const table of tables)
      await trx.raw('INSERT INTO ??.?? SELECT * FROM ??.??', [name, table, aside, table])
    await trx.raw('SET FOREIGN_KEY_CHECKS = 1')
  })
}
/**
 * Fills a database that has the schema with the demo. Reading its files takes seconds, copying rows a moment: of all processes of one run on
 * this server the first reads them and keeps the rows aside, the others wait for it.
 */
export async function fillWithDemo(db: Knex, name: string): Promise<DemoFindings> {
  const kept = `northtide_kept_${process.env.NORTHTIDE_TEST_RUN ?? process.pid}`
  return db.transaction(async trx => {
    await trx.raw('SELECT GET_LOCK(?, 300)', [kept])
    try {
      // The last table to be made stands for all of them.
      const [there] = (await trx.raw(
        `SELECT 1 FROM information_schema.TABLES WHERE TABLE_SCHEMA = ? AND TABLE_NAME = 'told'`,
        [kept],
      )) as [unknown[]]
      if (there.length > 0) {
        await putBack(db, name, kept)
        const [rows] = (await db.raw('SELECT findings FROM ??.told', [kept])) as [{ findings: string }[]]
        return JSON.parse(rows[0]?.findings ?? '[]') as DemoFindings
      }
      const findings = await loadDemo(db)
      await keepAside(db, name, kept)
      await db.raw('CREATE TABLE ??.told AS SELECT ? AS findings', [kept, JSON.stringify(findings)])
      return findings
    } finally {
      await trx.raw('SELECT RELEASE_LOCK(?)', [kept])
    }
  })
}
type DemoFindings = Awaited<ReturnType<typeof loadDemo>>
async function tablesOf(db: Knex, name: string): Promise<string[]> {
  const [rows] = (await db.raw(
    `SELECT TABLE_NAME AS name FROM information_schema.TABLES WHERE TABLE_SCHEMA = ? AND TABLE_NAME NOT LIKE 'knex%'`,
    [name],
  )) as [{ name: string }[]]
  return rows.map(row => row.name)
}

/** An empty database of its own on the test server. */
export async function freshDatabase(name: string): Promise<DatabaseAddress> {
  const address = {
    host: process.env.DB_HOST!,
    port: Number(process.env.DB_PORT),
    user: process.env.DB_USER!,
    password: process.env.DB_PASSWORD!,
    database: name,
  }
  const db: Knex = connect({ ...address, database: 'northtide' })
  await db.raw('DROP DATABASE IF EXISTS ??', [name])
  await db.raw('CREATE DATABASE ?? CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci', [name])
  await db.destroy()
  return address
}
