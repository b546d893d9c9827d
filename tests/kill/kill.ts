import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Knex } from 'knex'
import { loadDemo } from '../../demo/load'
import { connect, migrate, type DatabaseAddress } from '../../server/db/connection'
import { findPerson, type Person } from '../../server/people/people.queries'
import { effectOf } from '../../server/runs/effect'
import { chooseSections } from '../../server/plans/sections'
import { startPlan } from '../../server/plans/start'
import { makeCourse } from '../../server/shells/shells'
import { killNow, spawnApp, type ChildApp } from '../support/child-app'

/** What is killed while a run goes on. */
export type Victim = 'application' | 'database'
/** What became of one run whose writer was killed: how far in it was, what its person was told, what the shell holds. */
export interface Moment {
  victim: Victim
  /** Milliseconds after the run was asked for. */
  after: number
  /** HTTP status that came back; null: the connection broke. */
  told: number | null
  held: 'nothing' | 'everything' | 'half'
  /** Seconds until the run that was asked for was done, once all was up again; null: it was never asked for. */
  finished: number | null
  /** What is wrong, in words; none: all is as it must be. */
  faults: string[]
}

const script = fileURLToPath(new URL('../../scripts/mariadb', import.meta.url))
const evening = '2027-01-05T20:00:00-04:00'
interface World {
  folder: string
  address: DatabaseAddress
  db: Knex
  marchetti: Person
  old: string
}

/** A MariaDB server that may be killed, with the demo. */
async function makeWorld(): Promise<World> {
  process.env.NORTHTIDE_NOW = evening
  process.env.NORTHTIDE_LOG_LEVEL = 'silent'
  const folder = mkdtempSync(join(tmpdir(), 'nt-kill.'))
  const address = startDatabase(folder)
  const db = connect(address)
  await migrate(db)
  await loadDemo(db)
  const person = await db('people').where({ login: 'marchetti' }).first('id')
  const marchetti = person && (await findPerson(db, person.id))
  const old = await db('courses').where({ source_id: 'hyd240-01-2026a' }).first('id')
  if (!marchetti || !old) throw new Error('the demo was not loaded')
  return { folder, address, db, marchetti, old: old.id }
}
/** Starts the server of a folder, where it was stopped too, on the port it had. It writes its log at every commit, as it does for real. */
function startDatabase(folder: string): DatabaseAddress {
  const { NORTHTIDE_DB_THROWAWAY: _, ...env } = process.env
  execFileSync(script, ['start', folder], { stdio: 'inherit', env })
  const told = Object.fromEntries(
    readFileSync(join(folder, 'env'), 'utf8')
      .split('\n')
      .map(each => each.split('=', 2) as [string, string]),
  )
  return {
    host: told.DB_HOST ?? '',
    port: Number(told.DB_PORT),
    user: told.DB_USER ?? '',
    password: told.DB_PASSWORD ?? '',
    database: 'northtide',
  }
}
const startApp = ({ address }: World): Promise<ChildApp> =>
  spawnApp({
    DB_HOST: address.host,
    DB_PORT: String(address.port),
    DB_USER: address.user,
    DB_PASSWORD: address.password,
    DB_NAME: address.database,
    NORTHTIDE_NOW: evening,
    NORTHTIDE_LOG_LEVEL: 'silent',
  })

/** A shell with a section to be joined, and a plan from the old course into it. */
interface Case {
  shell: string
  section: string
  plan: string
  fingerprint: string
}
let made = 0
async function makeCase({ db, marchetti, old }: World): Promise<Case> {
  const code = `KIL ${++made}`
  const make = async (section: string, title: string): Promise<string> =>
    (await makeCourse(db, marchetti, { term: '2027-spring', code, section, title })).id
  const shell = await make('01', `Tides for ${code}`)
  const section = await make('02', `Tides for ${code}, evenings`)
  const plan = await startPlan(db, marchetti, { sources: [old], target: shell })
  await chooseSections(db, marchetti, plan, [section])
  const { fingerprint } = await effectOf(db, plan)
  return { shell, section, plan, fingerprint }
}
/** Counts of everything that a run writes into a shell and its section. */
async function stateOf(db: Knex, { shell, section, plan }: Case): Promise<Record<string, number>> {
  const count = async (query: Knex.QueryBuilder): Promise<number> => {
    const [row] = await query.count<{ count: number }[]>({ count: '*' })
    return row?.count ?? 0
  }
  return {
    units: await count(db('units').where({ course_id: shell })),
    items: await count(db('items').where({ course_id: shell })),
    categories: await count(db('grade_categories').where({ course_id: shell })),
    sectionDates: await count(db('section_dates').where({ course_id: section })),
    joined: await count(db('joined_sections').where({ content_id: shell })),
    runs: await count(db('runs').where({ plan_id: plan })),
    kept: await count(db('kept_states').where({ course_id: shell })),
    done: await count(db('plans').where({ id: plan, state: 'run' })),
    logged: await count(db('log').where({ plan_id: plan, action: 'plan.run' })),
  }
}

/** Signs in: a sign-in stands in the database, so that it outlives the application. */
async function signIn(url: string): Promise<string> {
  const answer = await fetch(`${url}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ login: 'marchetti', password: 'slack-water' }),
  })
  return (answer.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
}
async function askRun(url: string, cookie: string, { plan, fingerprint }: Case): Promise<number | null> {
  return fetch(`${url}/api/v1/plans/${plan}/run`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie },
    body: JSON.stringify({ fingerprint }),
  }).then(
    answer => answer.status,
    () => null,
  )
}
const wait = (milliseconds: number): Promise<void> =>
  new Promise(resolve => setTimeout(resolve, milliseconds))

/** Waits until our own connections are new ones: those of before are found to be dead one by one. */
async function reach(db: Knex): Promise<void> {
  // Beside other tests, on a busy machine, the database takes long to mend what it was killed in.
  const until = performance.now() + 120_000
  while (performance.now() < until) {
    await wait(50)
    const all = await Promise.allSettled(Array.from({ length: 10 }, () => db('terms').first('id')))
    if (all.every(each => each.status === 'fulfilled')) return
  }
  throw new Error('the database was started again and cannot be reached')
}

/** Waits until the run that was asked for of a plan has ended; how long that took, and how it ended. Null: none was asked for. */
async function runEnds(db: Knex, plan: string): Promise<{ seconds: number; state: string } | null> {
  const begin = performance.now()
  for (;;) {
    const job = await db('jobs').where({ kind: 'run', subject: plan }).orderBy('id', 'desc').first('state')
    if (!job) return null
    const seconds = (performance.now() - begin) / 1000
    const goesOn = job.state === 'waiting' || job.state === 'running'
    if (!goesOn || seconds > 60) return { seconds, state: job.state }
    await wait(20)
  }
}
/** How long a run takes that nobody disturbs, and what it writes. */
async function measure(world: World, app: ChildApp, cookie: string) {
  const given = await makeCase(world)
  const begin = performance.now()
  const told = await askRun(app.url, cookie, given)
  const ended = await runEnds(world.db, given.plan)
  if (told !== 200 || ended?.state !== 'done')
    throw new Error(`a run that nobody disturbs was told ${told} and ended ${ended?.state}`)
  return { took: performance.now() - begin, whole: await stateOf(world.db, given) }
}

/**
 * Kills the application, or the database, so many times each, at moments spread over a run; after each one starts it again and looks what
 * the shell holds. A run that was not written must be able to be run at once.
 */
export async function killMoments(times: number, told: (moment: Moment) => void): Promise<Moment[]> {
  const world = await makeWorld()
  const moments: Moment[] = []
  let app = await startApp(world)
  try {
    await app.ready
    const cookie = await signIn(app.url)
    await measure(world, app, cookie)
    const { took, whole } = await measure(world, app, cookie)
    for (const victim of ['application', 'database'] as const) {
      for (let at = 0; at < times; at++) {
        const given = await makeCase(world)
        // The next application starts while this one is put to death.
        const next = victim === 'application' ? await startApp(world) : null
        const after = ((at + Math.random()) / times) * took * 1.1
        const asked = askRun(app.url, cookie, given)
        await wait(after)
        if (next) {
          await killNow(app.process)
          app = next
        } else {
          process.kill(Number(readFileSync(join(world.folder, 'pid'), 'utf8')), 'SIGKILL')
          await wait(50)
          startDatabase(world.folder)
          await reach(world.db)
        }
        const answer = await asked
        await app.ready
        const moment = await look(world, app, cookie, given, { victim, after, told: answer }, whole)
        moments.push(moment)
        told(moment)
      }
    }
  } finally {
    await killNow(app.process)
    await world.db.destroy()
    execFileSync(script, ['drop', world.folder], { stdio: 'inherit' })
    rmSync(world.folder, { recursive: true, force: true })
  }
  return moments
}

async function look(
  world: World,
  app: ChildApp,
  cookie: string,
  given: Case,
  { victim, after, told }: Pick<Moment, 'victim' | 'after' | 'told'>,
  whole: Record<string, number>,
): Promise<Moment> {
  const faults: string[] = []
  // Nobody asks again: what was asked for is finished by the application itself.
  const ended = await runEnds(world.db, given.plan)
  const state = await stateOf(world.db, given)
  const isWhole = Object.entries(whole).every(([what, count]) => state[what] === count)
  const isNothing = Object.values(state).every(count => count === 0)
  const held = isWhole ? 'everything' : isNothing ? 'nothing' : 'half'
  if (held === 'half') faults.push(`half a shell: ${JSON.stringify(state)}`)
  if (ended && ended.state !== 'done') faults.push(`the run ended ${ended.state}`)
  if (ended && !isWhole) faults.push('it was asked for, and was never written')
  if (told === 200 && !ended) faults.push('told that it was asked for, and it was not')
  if (ended && ended.seconds > 30) faults.push(`it took ${Math.round(ended.seconds)} s to go on`)
  if (!ended) {
    const again = await askRun(app.url, cookie, given)
    const done = await runEnds(world.db, given.plan)
    if (again !== 200 || done?.state !== 'done') faults.push(`asked for again it was told ${again}`)
    else if (JSON.stringify(await stateOf(world.db, given)) !== JSON.stringify(whole))
      faults.push('asked for again it was not whole')
  }
  return { victim, after: Math.round(after), told, held, finished: ended && ended.seconds, faults }
}
