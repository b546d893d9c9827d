// npm run bench:runs : runs of 200, 2 000 and 20 000 items. Beside each, in the same run, the same content rows written by hand: one
// INSERT … SELECT a table, in one transaction.
import { performance } from 'node:perf_hooks'
import type { Knex } from 'knex'
import { present } from '../core/present'
import { connect, migrate } from '../server/db/connection'
import { countStudentData } from '../server/courses/student-data.queries'
import { contentTally } from '../server/courses/tally.queries'
import { newId, written } from '../server/db/rows'
import { findPerson } from '../server/people/people.queries'
import { startPlan } from '../server/plans/start'
import { fillWithDemo, freshDatabase, useServer } from '../tests/support/database'
import { useWorker } from '../tests/support/worker'
import { makeBenchCourse, makeBenchShell } from './courses'
import { shipped } from './shipped'

process.env.NORTHTIDE_LOG_LEVEL = 'silent'
const name = 'northtide_bench_runs'
const old = 'hyd240-01-2026a'
const shellLike = 'hyd240-01-2027s'
const stopServer = useServer()
process.env.DB_NAME = name
await useWorker()
const { effectOf, readCourse, readPlan, savePlan } = await shipped('page')
const thread = await shipped('thread')
const db = connect(await freshDatabase(name))
const median = (times: number[]): number => present(times.sort((a, b) => a - b)[times.length >> 1])
async function timed<T>(work: () => Promise<T>): Promise<[number, T]> {
  const start = performance.now()
  const value = await work()
  return [performance.now() - start, value]
}
const content = {
  grade_categories: 'lineage, title, weight, position, identifier, within, drop_lowest, drop_highest, exempt',
  units: 'lineage, parent_lineage, position, title, state, identifier',
  items:
    'lineage, parent_lineage, position, kind, title, state, exam, points, category_lineage, opens, due, closes, body_hash, media_type, settings, identifier, rubric_lineage, group_lineage, releases, exempt, extra',
}
const record =
  'plan_id, source_course_id, person_id, document, effect, audit, traces, started_at, finished_at, entries, facts'
async function rowsByHand(trx: Knex, from: string, to: string): Promise<void> {
  for (const [table, columns] of Object.entries(content))
    await written(
      trx,
      `INSERT INTO ${table} (course_id, ${columns}) SELECT :to, ${columns} FROM ${table} WHERE course_id = :from`,
      { from, to },
    )
}
const byHand = (from: string, to: string): Promise<void> =>
  db.transaction((trx: Knex.Transaction) => rowsByHand(trx, from, to))
/**
 * The least that any run must do beside its rows: look whether courses stand as they did, write down what it did and what the next run
 * compares with (both as documents that are there already), count students before and after, and read what now stands there.
 */
const least = (run: string, from: string, to: string): Promise<void> =>
  db.transaction(async (trx: Knex.Transaction) => {
    for (const course of [from, to]) await contentTally(trx, course)
    await countStudentData(trx, to)
    await rowsByHand(trx, from, to)
    await written(
      trx,
      `INSERT INTO runs (id, target_course_id, ${record}) SELECT :id, :to, ${record} FROM runs WHERE id = :run`,
      { id: newId(), run, to },
    )
    await written(
      trx,
      'INSERT INTO carried_bases (course_id, bases) SELECT :to, bases FROM carried_bases WHERE course_id = :from',
      { from, to },
    )
    await trx('items')
      .where({ course_id: to })
      .select('lineage', 'title', 'settings', 'opens', 'due', 'closes')
    await countStudentData(trx, to)
  })
try {
  await migrate(db)
  await fillWithDemo(db, name)
  const office = await db('people').where({ login: 'ellwood' }).first('id')
  const ellwood = present(await findPerson(db, office?.id ?? ''))
  const sizes = (process.argv[2] ?? '200,2000,20000').split(',').map(Number)
  for (const items of sizes) {
    const source = await makeBenchCourse(db, old, { code: `BEN ${items}`, items })
    const rounds = items > 5000 ? 3 : 7
    const times = { run: [], hand: [], effect: [], changed: [], plan: [], outline: [], least: [] } as Record<
      string,
      number[]
    >
    const took = async <T>(what: string, work: () => Promise<T>): Promise<T> => {
      const [time, value] = await timed(work)
      present(times[what]).push(time)
      return value
    }
    for (let round = 0; round < rounds; round++) {
      const shell = await makeBenchShell(db, shellLike, `RUN ${items}-${round}`)
      const plan = await startPlan(db, ellwood, { sources: [source], target: shell })
      // The first look searches for traces of students; those that follow know what was found.
      await effectOf(db, plan)
      await took('outline', () => readCourse(db, ellwood, source))
      const { document, revision, source: from } = await took('plan', () => readPlan(db, ellwood, plan))
      const leave = from.nodes.slice(-1 - (round % 3)).map(node => node.lineage)
      await savePlan(db, ellwood, plan, revision, {
        document: { ...document, carry: { ...document.carry, leave } },
      })
      await took('changed', () => effectOf(db, plan))
      const { fingerprint } = await took('effect', () => effectOf(db, plan))
      const run = await took('run', () => thread.runPlan(db, ellwood, plan, fingerprint))
      const other = await makeBenchShell(db, shellLike, `HAND ${items}-${round}`)
      await took('hand', () => byHand(shell, other))
      const third = await makeBenchShell(db, shellLike, `LEAST ${items}-${round}`)
      await took('least', () => least(run, shell, third))
    }
    const [run, hand, effect, changed, plan, outline, atLeast] = [
      'run',
      'hand',
      'effect',
      'changed',
      'plan',
      'outline',
      'least',
    ].map(what => median(present(times[what])))
    const ms = (time: number | undefined): string => `${present(time).toFixed(0)} ms`
    console.log(
      `${items} items: run ${ms(run)}, by hand ${ms(hand)}, ratio ${(present(run) / present(hand)).toFixed(1)}; the least ${ms(atLeast)}, ratio ${(present(run) / present(atLeast)).toFixed(1)}; effect ${ms(effect)}, after a change ${ms(changed)}, plan ${ms(plan)}, outline ${ms(outline)}; memory ${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`,
    )
  }
  // The same number of items, with ever larger texts: what the process holds while it runs.
  for (const kilobytes of [1, 64, 1024]) {
    const source = await makeBenchCourse(db, old, { code: `MEM ${kilobytes}`, items: 100, kilobytes })
    const shell = await makeBenchShell(db, shellLike, `MEM ${kilobytes}`)
    const plan = await startPlan(db, ellwood, { sources: [source], target: shell })
    const { fingerprint } = await effectOf(db, plan)
    globalThis.gc?.()
    const before = process.memoryUsage().rss
    let most = before
    const look = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 2)
    const [time] = await timed(() => thread.runPlan(db, ellwood, plan, fingerprint))
    clearInterval(look)
    const MB = (bytes: number): string => `${(bytes / 1e6).toFixed(0)} MB`
    console.log(
      `100 items of ${kilobytes} kB: run ${time.toFixed(0)} ms, process ${MB(before)} before, ${MB(most)} at most while it ran`,
    )
  }
} finally {
  await db.destroy()
  await stopServer()
}
