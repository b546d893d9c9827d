import { Session } from 'node:inspector/promises'
import { writeFileSync, rmSync, mkdirSync } from 'node:fs'
import { performance } from 'node:perf_hooks'
import { there } from '../core/there'
import { connect, migrate } from '../server/db/connection'
import { findPerson } from '../server/people/people.queries'
import { effectOf } from '../server/plans/effect'
import { readPlan } from '../server/plans/plans'
import { startPlan } from '../server/plans/start'
import { runPlan } from '../server/runs/runs'
import { fillWithDemo, freshDatabase, useServer } from '../tests/support/database'
import { makeBenchCourse, makeBenchShell } from './courses'
process.env.NORTHTIDE_LOG_LEVEL = 'silent'
const name = 'northtide_bench_prof'
const stopServer = useServer()
process.env.DB_NAME = name
const db = connect(await freshDatabase(name))
try {
  await migrate(db)
  await fillWithDemo(db, name)
  const office = await db('people').where({ login: 'ellwood' }).first('id')
  const ellwood = there(await findPerson(db, office?.id ?? ''))
  const items = Number(process.argv[2] ?? 2000)
  const what = process.argv[3] ?? 'run'
  const source = await makeBenchCourse(db, 'hyd240-01-2026a', { code: `BEN ${items}`, items })
  const sql = new Map<string, [number, number]>()
  const started = new Map<string, number>()
  let on = false
  db.on('query', q => started.set(q.__knexQueryUid, performance.now()))
  db.on('query-response', (_r: unknown, q: any) => {
    if (!on) return
    const t = performance.now() - (started.get(q.__knexQueryUid) ?? 0)
    const key = q.sql.replace(/\s+/g, ' ').replace(/(\?, )+/g, '?…').slice(0, 130)
    const [n, s] = sql.get(key) ?? [0, 0]
    sql.set(key, [n + 1, s + t])
  })
  const session = new Session()
  session.connect()
  await session.post('Profiler.enable')
  rmSync('/tmp/prof', { recursive: true, force: true })
  mkdirSync('/tmp/prof')
  for (let round = 0; round < 4; round++) {
    const shell = await makeBenchShell(db, 'hyd240-01-2027s', `RUN ${items}-${round}`)
    const plan = await startPlan(db, ellwood, { sources: [source], target: shell })
    const { fingerprint } = await effectOf(db, plan)
    await effectOf(db, plan)
    if (round === 3) { on = true; await session.post('Profiler.start') }
    const a = performance.now()
    if (what === 'run') await runPlan(db, ellwood, plan, fingerprint)
    else if (what === 'effect') await effectOf(db, plan)
    else await readPlan(db, ellwood, plan)
    console.log(what, (performance.now() - a).toFixed(0))
    if (round === 3) { const { profile } = await session.post('Profiler.stop'); writeFileSync('/tmp/prof/p.cpuprofile', JSON.stringify(profile)) }
    on = false
  }
  for (const [k, [n, t]] of [...sql].sort((a, b) => b[1][1] - a[1][1]).slice(0, 40)) console.log(t.toFixed(1), n, k)
} finally { await db.destroy(); await stopServer() }
