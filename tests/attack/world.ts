import { readFileSync } from 'node:fs'
import type { Knex } from 'knex'
import { connect, migrate } from '../../server/db/connection'
import { setPassword } from '../../server/people/people'
import { killNow, spawnApp } from '../support/child-app'
import { fillWithDemo, freshDatabase } from '../support/database'

export type Role = 'instructor' | 'assistant' | 'coordinator' | 'office' | 'stranger'
/** What came back: enough to judge by. */
export interface Answer {
  status: number
  headers: Headers
  text: string
  json: () => unknown
}
export interface Ask {
  body?: unknown
  headers?: Record<string, string>
  cookie?: string
}
/** The application under attack, on a server of its own on loopback, and what an attacker has. */
export interface World {
  url: string
  db: Knex
  /** The cookie of a sign-in of each role. */
  cookies: Record<Role, string>
  /** Ids by name: OLD (the old course), SHELL (an empty one), OTHER (a second shell), NOBODY. */
  ids: Record<'OLD' | 'SHELL' | 'OTHER' | 'NOBODY', string>
  ask: (as: Role | null, method: string, path: string, ask?: Ask) => Promise<Answer>
  signIn: (login: string, password: string, headers?: Record<string, string>) => Promise<string>
  /** Bytes of memory that the application has in use now. */
  memory: () => number
  stop: () => Promise<void>
}
export const logins: Record<Role, readonly [login: string, password: string]> = {
  instructor: ['marchetti', 'slack-water'],
  assistant: ['okonjo', 'neap-tide'],
  coordinator: ['brandt', 'spring-range'],
  office: ['ellwood', 'chart-datum'],
  stranger: ['stranger', 'not a real one at all'],
}
/** Text and bytes go as they are, everything else as JSON. */
function sent(body: unknown): string | Buffer<ArrayBuffer> | undefined {
  if (body === undefined || typeof body === 'string') return body
  return body instanceof Uint8Array ? Buffer.from(body) : JSON.stringify(body)
}
/** Bytes that one file may have here, so that floods stay small. */
export const uploadLimit = 8 * 1024 * 1024

export async function makeWorld(): Promise<World> {
  process.env.NORTHTIDE_NOW = '2027-01-05T20:00:00-04:00'
  process.env.NORTHTIDE_LOG_LEVEL = 'silent'
  const address = await freshDatabase('northtide_attack')
  const db = connect(address)
  await migrate(db)
  await fillWithDemo(db, 'northtide_attack')
  await db('people').where({ source_id: 'st-2026-010' }).update({ login: 'stranger' })
  await setPassword(db, ...logins.stranger)
  const app = await spawnApp({
    DB_NAME: 'northtide_attack',
    NORTHTIDE_LIMIT_UPLOAD_BYTES: String(uploadLimit),
    // So that each attack can come from an address of its own.
    NORTHTIDE_PROXIES: '1',
  })
  await app.ready
  const idOf = async (source: string): Promise<string> =>
    (await db('courses').where({ source_id: source }).first('id'))?.id ?? ''
  const cookies: Partial<Record<Role, string>> = {}
  const world: World = {
    url: app.url,
    db,
    cookies: cookies as World['cookies'],
    ids: {
      OLD: await idOf('hyd240-01-2026a'),
      SHELL: await idOf('hyd240-01-2027s'),
      OTHER: await idOf('hyd240-02-2027s'),
      NOBODY: '01999999-9999-7999-8999-999999999999',
    },
    ask: async (as, method, path, { body, headers = {}, cookie } = {}) => {
      const kept = cookie ?? (as ? cookies[as] : undefined)
      const answer = await fetch(`${app.url}${path}`, {
        method,
        redirect: 'manual',
        headers: {
          ...(body !== undefined && { 'content-type': 'application/json' }),
          ...(kept && { cookie: kept }),
          ...headers,
        },
        body: sent(body),
      })
      const text = await answer.text()
      return {
        status: answer.status,
        headers: answer.headers,
        text,
        json: () => JSON.parse(text) as unknown,
      }
    },
    signIn: async (login, password, headers = {}) => {
      const { headers: told, status } = await world.ask(null, 'POST', '/api/v1/session', {
        body: { login, password },
        headers,
      })
      if (status !== 200) throw new Error(`signing in as ${login} was told ${status}`)
      return (told.get('set-cookie') ?? '').split(';')[0] ?? ''
    },
    memory: () => {
      const status = readFileSync(`/proc/${app.process.pid}/status`, 'utf8')
      return Number(/^VmRSS:\s+(\d+) kB/m.exec(status)?.[1] ?? 0) * 1024
    },
    stop: async () => {
      await killNow(app.process)
      await db.destroy()
    },
  }
  for (const [role, [login, password]] of Object.entries(logins))
    cookies[role as Role] = await world.signIn(login, password)
  return world
}

/** One attack: what is tried, and what came of it in a few words. */
export interface Attack {
  /** The number in docs/security.md and in words what is tried. */
  name: string
  /** Part of `./test`. */
  quick: boolean
  /** @throws where the application gave way, saying how */
  run: (world: World) => Promise<string>
}
/** @throws unless something holds */
export function must(holds: boolean, gaveWay: string): asserts holds {
  if (!holds) throw new Error(gaveWay)
}
