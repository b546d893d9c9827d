// npm run bench:batches [pairs] : a batch of so many courses of 200 items each, tried and run by one process of the built application
// and by two, against one database. The same sources, new shells each time.
import { performance } from 'node:perf_hooks'
import { changePair, makeBatch, readBatch, readPairsOf, runBatch } from '../server/batches/batches'
import { connect, migrate } from '../server/db/connection'
import { findPerson } from '../server/people/people.queries'
import { present } from '../core/present'
import { killNow, spawnApp } from '../tests/support/child-app'
import { fillWithDemo, freshDatabase, useServer } from '../tests/support/database'
import { useWorker } from '../tests/support/worker'
import { makeBenchCourse, makeBenchShell } from './courses'

process.env.NORTHTIDE_LOG_LEVEL = 'silent'
const name = 'northtide_bench_batches'
const pairs = Number(process.argv[2] ?? 500)
const items = 200
const stopServer = useServer()
process.env.DB_NAME = name
await useWorker()
const db = connect(await freshDatabase(name))
const secondsOf = async (work: () => Promise<unknown>): Promise<number> => {
  const start = performance.now()
  await work()
  return (performance.now() - start) / 1000
}
try {
  await migrate(db)
  await fillWithDemo(db, name)
  const office = await db('people').where({ login: 'ellwood' }).first('id')
  const ellwood = present(await findPerson(db, office?.id ?? ''))
  for (let at = 0; at < pairs; at++)
    await makeBenchCourse(db, 'hyd240-01-2026a', { code: `SRC ${1000 + at}`, items })
  const until = async (batch: string, state: string): Promise<void> => {
    for (;;) {
      const now = await readBatch(db, ellwood, batch)
      if (now.state === state && now.open === 0) return
      await new Promise(resolve => setTimeout(resolve, 100))
    }
  }
  /** What would be looked at, for whatever reason, runs as it is. */
  const acceptAll = async (batch: string): Promise<void> => {
    for (;;) {
      const {
        pairs: [first],
      } = await readPairsOf(db, ellwood, batch, { state: 'look' })
      if (!first) return
      await changePair(db, ellwood, batch, first.id, 'accept-alike')
    }
  }
  const took: Record<number, { tried: number; run: number }> = {}
  for (const processes of [1, 2]) {
    const lines = ['source,shell']
    for (let at = 0; at < pairs; at++) {
      const code = `P${processes} ${1000 + at}`
      await makeBenchShell(db, 'hyd240-01-2027s', code)
      lines.push(`SRC ${1000 + at}-01,${code}-01`)
    }
    const apps = await Promise.all(Array.from({ length: processes }, () => spawnApp({ DB_NAME: name })))
    await Promise.all(apps.map(app => app.ready))
    try {
      const wish = {
        name: `${processes} processes`,
        term: '2027-spring',
        table: lines.join('\n'),
        decisions: { how: 'recommended' } as const,
      }
      let batch = ''
      const tried = await secondsOf(async () => {
        batch = (await makeBatch(db, ellwood, wish, 'http://localhost')).id
        await until(batch, 'tried')
        await acceptAll(batch)
      })
      const run = await secondsOf(async () => {
        await runBatch(db, ellwood, batch, 'http://localhost')
        await until(batch, 'done')
      })
      const { counts } = await readBatch(db, ellwood, batch)
      took[processes] = { tried, run }
      console.log(
        `${pairs} courses of ${items} items, ${processes} process${processes > 1 ? 'es' : ''}: tried in ${tried.toFixed(1)} s, run in ${run.toFixed(1)} s (${((run / pairs) * 1000).toFixed(0)} ms a course); ${counts.done} filled, ${counts.exception + counts.look + counts.failed} not`,
      )
    } finally {
      await Promise.all(apps.map(app => killNow(app.process)))
    }
  }
  const [one, two] = [present(took[1]), present(took[2])]
  console.log(
    `two against one: tried ${(one.tried / two.tried).toFixed(2)} times as fast, run ${(one.run / two.run).toFixed(2)} times`,
  )
} finally {
  await db.destroy()
  await stopServer()
}
