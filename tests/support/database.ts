import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Knex } from 'knex'
import { connect, type DatabaseAddress } from '../../server/db/connection'

const script = fileURLToPath(new URL('../../scripts/mariadb', import.meta.url))

/** A MariaDB server for tests: the one that ./test has started (DB_* are set), else one of our own. Returns how to stop it. */
export function useServer(): () => void {
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
