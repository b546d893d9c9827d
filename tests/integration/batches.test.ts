import { afterEach, beforeAll, describe, expect, it } from 'vitest'
import { present } from '../../core/present'
import {
  changePair,
  discardBatch,
  listBatches,
  makeBatch,
  readBatch,
  readPairsOf,
  runBatch,
  stopBatch,
  stopTrial,
  stopUndoing,
  tryAgain,
  undoBatch,
} from '../../server/batches/batches'
import { batchRecord } from '../../server/batches/record'
import { loadOutline } from '../../server/courses/content.queries'
import { claimJob } from '../../server/jobs/jobs.queries'
import { editCourse } from '../../server/editing/edits'
import { newId } from '../../server/db/rows'
import { startRunner } from '../../server/jobs/runner'
import { jobKinds } from '../../server/work/kinds'
import { planState } from '../../server/plans/plans'
import { startPlan } from '../../server/plans/start'
import { readUndo, undoRun } from '../../server/runs/undo'
import { makeCourse } from '../../server/shells/shells'
import { atOnce } from '../support/at-once'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('batches')
const origin = 'https://northtide.example'
let made = 0
/** Shells of the spring that the demo's instructor made, in the office's reach. */
async function shells(count: number): Promise<string[]> {
  const codes: string[] = []
  for (let at = 0; at < count; at++) {
    const code = `BAT ${100 + ++made}`
    await makeCourse(demo.db, demo.people.marchetti, {
      term: '2027-spring',
      code,
      section: '',
      title: `Tides ${code}`,
    })
    codes.push(code)
  }
  return codes
}
const office = () => demo.people.ellwood
// Its one graded item without a category would have every pair looked at.
beforeAll(async () => {
  const [category] = await demo.db('grade_categories').where({ course_id: demo.courses.old }).pluck('lineage')
  await demo.db('items').where({ title: 'Welcome survey' }).update({ category_lineage: category })
})
const rolls = useRolls(demo, office)
const courseOf = async (code: string): Promise<string> =>
  present(await demo.db('courses').where({ code }).first()).id
const tableOf = (codes: readonly string[], source = 'HYD 240-01'): string =>
  ['source,shell', ...codes.map(code => `${source},${code}`)].join('\n')
const batchOf = (table: string | null, decisions: 'recommended' | 'as-before' = 'recommended') =>
  makeBatch(
    demo.db,
    office(),
    { name: `Batch ${++made}`, term: '2027-spring', table, decisions: { how: decisions } },
    origin,
  ).then(({ id }) => id)
const { batch: watch, 'batch-try': tries, 'batch-run': runs, 'batch-undo': undoes } = jobKinds
const ofBatches = { batch: watch, 'batch-try': tries, 'batch-run': runs, 'batch-undo': undoes }
const giveUp = (): void => {}
/** Works off what was asked for, as so many processes do, until the batch stands as is said. */
async function untilIt(id: string, state: string, processes = 1): Promise<void> {
  const stops = Array.from({ length: processes }, () => startRunner(demo.db, ofBatches, { pause: 20 }))
  try {
    await expect
      .poll(
        async () => {
          const now = await readBatch(demo.db, office(), id)
          return now.state === state && now.open === 0 && now.undoing === null
        },
        { timeout: 60_000 },
      )
      .toBe(true)
  } finally {
    await Promise.all(stops.map(stop => stop()))
  }
}
const read = (id: string) => readBatch(demo.db, office(), id)
const pairs = async (id: string) => (await readPairsOf(demo.db, office(), id, {})).pairs
afterEach(() => {
  delete process.env.NORTHTIDE_SMTP_URL
})

describe('a batch', () => {
  it('tries every pair, says what stands against some, runs the others, and tells so once', async () => {
    process.env.NORTHTIDE_SMTP_URL = 'smtp://127.0.0.1:9'
    const codes = await shells(3)
    await startPlan(demo.db, demo.people.marchetti, {
      sources: [demo.courses.old],
      target: await courseOf(present(codes[2])),
    })
    const id = await batchOf(`${tableOf(codes)}\nHYD 240-01,XYZ 9`)
    await untilIt(id, 'tried')
    expect((await read(id)).counts).toMatchObject({ ready: 2, exception: 2 })
    expect((await read(id)).totals.ready.items).toBe(2 * 98)
    expect((await pairs(id)).map(pair => pair.problem?.title ?? null)).toEqual([
      null,
      null,
      'I. Marchetti plans for this shell',
      'Line 5 names no pair',
    ])
    // The dry run has written nothing.
    expect(await loadOutline(demo.db, await courseOf(present(codes[0])))).toEqual([])
    await runBatch(demo.db, office(), id, origin)
    await untilIt(id, 'done')
    const done = await read(id)
    expect(done.counts).toMatchObject({ done: 2, exception: 2, ready: 0 })
    expect(done.totals.done.items).toBe(2 * 98)
    expect((await loadOutline(demo.db, await courseOf(present(codes[1])))).length).toBeGreaterThan(90)
    const letters = await demo.db('mails').where('subject', 'like', `The batch ${done.name} is done%`)
    expect(letters).toHaveLength(1)
    expect(letters[0]?.body).toContain('2 shells filled.')
    expect(letters[0]?.body).toContain(`${origin}/batches/${id}`)
    expect(await demo.db('mails').where('subject', 'like', 'BAT%')).toHaveLength(0)
    const csv = await batchRecord(demo.db, office(), id)
    expect(csv.split('\r\n')).toHaveLength(4 + 2)
    expect(csv).toContain('HYD 240-01,Autumn 2026,BAT 101,filled')
    expect(csv).toContain('No shell of Spring 2027 that you may roll into is called “XYZ 9”')
    await expect(discardBatch(demo.db, office(), id)).rejects.toMatchObject({ code: 'batch-was-run' })
  })
  it('goes on past a pair that fails, which is checked and run again', async () => {
    const codes = await shells(3)
    const id = await batchOf(tableOf(codes))
    await untilIt(id, 'tried')
    const failing = present((await pairs(id))[1])
    // Somebody changes the plan of one pair after the office has seen what it would do.
    await demo
      .db('plans')
      .where({ id: present(failing.plan) })
      .update({
        document: demo.db.raw("JSON_SET(document, '$.carry.arrive', 'hidden')") as never,
        revision: 2,
      })
    await runBatch(demo.db, office(), id, origin)
    await untilIt(id, 'done')
    expect((await read(id)).counts).toMatchObject({ done: 2, failed: 1 })
    expect((await pairs(id))[1]?.problem?.title).toBe('Something changed since you looked')
    await changePair(demo.db, office(), id, failing.id, 'check')
    await untilIt(id, 'tried')
    expect((await read(id)).counts).toMatchObject({ done: 2, ready: 1 })
    await runBatch(demo.db, office(), id, origin)
    await untilIt(id, 'done')
    expect((await read(id)).counts).toMatchObject({ done: 3 })
  })
  it('has pairs looked at in which anything but dates is to settle, one by one or all with the same reason', async () => {
    const survey = () => demo.db('items').where({ title: 'Welcome survey' })
    const [category] = await survey().pluck('category_lineage')
    await survey().update({ category_lineage: null })
    const [own, ...others] = await shells(3)
    const id = await batchOf(tableOf([present(own), ...others]))
    await untilIt(id, 'tried')
    const [first, second] = await pairs(id)
    expect(first).toMatchObject({
      state: 'look',
      problem: { title: 'To settle: 1 graded item without a category' },
      effect: { settle: 1, alsoSettle: 1 },
    })
    await changePair(demo.db, office(), id, present(first).id, 'accept')
    expect((await read(id)).counts).toMatchObject({ ready: 1, look: 2 })
    await changePair(demo.db, office(), id, present(second).id, 'accept-alike')
    expect((await read(id)).counts).toMatchObject({ ready: 3, look: 0 })
    await discardBatch(demo.db, office(), id)
    await survey().update({ category_lineage: category })
  })
  it('is stopped and resumed: what waits is not begun, and begun once later', async () => {
    const codes = await shells(3)
    const id = await batchOf(tableOf(codes))
    await untilIt(id, 'tried')
    const { done } = await atOnce(() => runBatch(demo.db, office(), id, origin))
    expect(done).toHaveLength(20)
    expect((await read(id)).open).toBe(3)
    // Others are told on the shell.
    const plan = present((await pairs(id))[0]?.plan)
    expect((await planState(demo.db, plan)).writing).toMatchObject({ step: 'waits' })
    await stopBatch(demo.db, office(), id)
    await untilIt(id, 'stopped')
    expect((await read(id)).counts).toMatchObject({ ready: 3, done: 0 })
    expect((await planState(demo.db, plan)).writing).toBeNull()
    await runBatch(demo.db, office(), id, origin)
    // Stopped once more while one is being written: that one is finished, and not asked for again.
    const begun = present(await claimJob(demo.db, { 'batch-run': runs }))
    await stopBatch(demo.db, office(), id)
    await runBatch(demo.db, office(), id, origin)
    expect(
      await demo
        .db('jobs')
        .where({ kind: 'batch-run', subject: begun.subject })
        .whereIn('state', ['waiting', 'running']),
    ).toHaveLength(1)
    await runs.work(demo.db, begun, giveUp)
    await untilIt(id, 'done', 2)
    expect((await read(id)).counts).toMatchObject({ done: 3 })
    const plans = (await pairs(id)).map(pair => present(pair.plan))
    expect(await demo.db('runs').whereIn('plan_id', plans)).toHaveLength(3)
    const actions = await demo.db('log').where('action', 'like', 'batch.%').orderBy('id').pluck('action')
    expect(actions.slice(-7)).toEqual([
      'batch.run',
      'batch.stopped',
      'batch.halted',
      'batch.resumed',
      'batch.stopped',
      'batch.resumed',
      'batch.done',
    ])
  })
  it('is stopped while it is tried: the others are tried later, once, and nothing keeps those that are ready', async () => {
    const codes = await shells(3)
    const id = await batchOf(tableOf(codes))
    const begun = present(await claimJob(demo.db, { 'batch-try': tries }))
    await stopTrial(demo.db, office(), id)
    await tries.work(demo.db, begun, giveUp)
    await untilIt(id, 'tried')
    expect((await read(id)).counts).toMatchObject({ ready: 1, waiting: 2 })
    await expect(stopTrial(demo.db, office(), id)).rejects.toMatchObject({ code: 'batch-does-not-run' })
    await runBatch(demo.db, office(), id, origin)
    await untilIt(id, 'done')
    expect((await read(id)).counts).toMatchObject({ done: 1, waiting: 2 })
    await atOnce(() => tryAgain(demo.db, office(), id, 'waiting'))
    expect((await read(id)).open).toBe(2)
    await untilIt(id, 'tried')
    expect((await read(id)).counts).toMatchObject({ done: 1, ready: 2 })
    await expect(tryAgain(demo.db, office(), id, 'waiting')).rejects.toMatchObject({ code: 'nothing-to-try' })
  })
  it('is undone: every shell is as it was but those in which somebody has done anything since; a pair can be run again', async () => {
    process.env.NORTHTIDE_SMTP_URL = 'smtp://127.0.0.1:9'
    const codes = await shells(4)
    const courses = await Promise.all(codes.map(courseOf))
    const id = await batchOf(tableOf(codes))
    await untilIt(id, 'tried')
    await expect(undoBatch(demo.db, office(), id, origin)).rejects.toMatchObject({ code: 'nothing-to-undo' })
    const before = await Promise.all(courses.map(rolls.digest))
    await runBatch(demo.db, office(), id, origin)
    await expect(undoBatch(demo.db, office(), id, origin)).rejects.toMatchObject({ code: 'batch-runs' })
    await untilIt(id, 'done')
    // Somebody changes one shell, a student hands in on another, and a third is undone from its own record.
    const assignment = async (course: string): Promise<string> =>
      present((await demo.db('items').where({ course_id: course, kind: 'assignment' }).pluck('lineage'))[0])
    const [edited, handedIn] = courses as [string, string]
    const titles = { [await assignment(edited)]: 'Sounding the bay, anew' }
    await editCourse(demo.db, office(), edited, { does: 'rename', titles })
    await rolls.handIn(handedIn, await assignment(handedIn))
    const runOf = async (at: number): Promise<string> => present((await pairs(id))[at]?.run)
    const undo = await readUndo(demo.db, office(), await runOf(2))
    await undoRun(demo.db, office(), await runOf(2), { fingerprint: undo.fingerprint, keepAside: false })
    expect((await read(id)).counts).toMatchObject({ done: 3, undone: 1 })
    await atOnce(() => undoBatch(demo.db, office(), id, origin))
    expect((await read(id)).undoing).toEqual({ asked: 3, open: 3 })
    await untilIt(id, 'done', 2)
    expect((await read(id)).counts).toMatchObject({ done: 2, undone: 2 })
    const after = await Promise.all(courses.map(rolls.digest))
    expect(after[3]).toBe(before[3])
    expect(after[2]).toBe(before[2])
    expect(after[1]).not.toBe(before[1])
    expect((await pairs(id)).map(pair => pair.problem?.title ?? null)).toEqual([
      '1 thing was changed there since',
      'Students have handed in on 1 item',
      null,
      null,
    ])
    const letters = await demo.db('mails').where('subject', 'like', '%: 1 run undone')
    expect(letters).toHaveLength(1)
    expect(letters[0]?.body).toContain('2 shells stay as they are: the page says why.')
    expect(await batchRecord(demo.db, office(), id)).toContain('undone, the shell is as it was')
    await expect(discardBatch(demo.db, office(), id)).rejects.toMatchObject({ code: 'batch-was-run' })
    // Its drafts, which nobody has changed, bar no other batch; one that somebody has taken up does.
    const taken = present((await pairs(id))[2]?.plan)
    await demo.db.raw(
      "UPDATE plans SET document = JSON_SET(document, '$.carry.arrive', 'hidden') WHERE id = ?",
      [taken],
    )
    const other = await batchOf(tableOf(codes.slice(2)))
    await untilIt(other, 'tried')
    expect((await pairs(other)).map(pair => pair.problem?.title ?? null)).toEqual([
      'M. Ellwood plans for this shell',
      null,
    ])
    await discardBatch(demo.db, office(), other)
    await tryAgain(demo.db, office(), id, 'undone')
    await untilIt(id, 'tried')
    await runBatch(demo.db, office(), id, origin)
    await untilIt(id, 'done')
    expect((await read(id)).counts).toMatchObject({ done: 4, undone: 0 })
  })
  it('stops being undone: what waits stays as it is', async () => {
    const codes = await shells(2)
    const id = await batchOf(tableOf(codes))
    await untilIt(id, 'tried')
    await runBatch(demo.db, office(), id, origin)
    await untilIt(id, 'done')
    await undoBatch(demo.db, office(), id, origin)
    const begun = present(await claimJob(demo.db, { 'batch-undo': undoes }))
    // Whoever began it was taken for dead, and another holds the job now: the first undoes nothing any more.
    await demo.db('jobs').where({ id: begun.id }).update({ token: newId() })
    await undoes.work(demo.db, begun, giveUp)
    expect((await read(id)).counts).toMatchObject({ done: 2, undone: 0 })
    await demo.db('jobs').where({ id: begun.id }).update({ token: begun.token })
    await undoes.work(demo.db, begun, giveUp)
    await stopUndoing(demo.db, office(), id)
    await untilIt(id, 'done')
    expect((await read(id)).counts).toMatchObject({ done: 1, undone: 1 })
    // The last pair had its turn first: of two runs into one shell the later one must go first.
    expect((await pairs(id)).map(pair => pair.state)).toEqual(['done', 'undone'])
    await expect(stopUndoing(demo.db, office(), id)).rejects.toMatchObject({ code: 'batch-does-not-run' })
  })
  it('asks of each pair, when it is run, whether whoever runs it may', async () => {
    const [code = ''] = await shells(1)
    const id = await batchOf(tableOf([code]))
    await untilIt(id, 'tried')
    await runBatch(demo.db, office(), id, origin)
    const duties = await demo.db('duties').where({ person_id: office().id })
    await demo.db('duties').where({ person_id: office().id }).delete()
    await untilIt(id, 'done')
    await demo.db('duties').insert(duties)
    expect((await pairs(id))[0]).toMatchObject({ state: 'failed', run: null })
    expect(await loadOutline(demo.db, await courseOf(code))).toEqual([])
    await expect(
      makeBatch(
        demo.db,
        demo.people.marchetti,
        { name: 'Mine', term: '2027-spring', table: tableOf([code]), decisions: { how: 'recommended' } },
        origin,
      ),
    ).rejects.toMatchObject({ code: 'office-only' })
  })
  it('takes every shell of a term with its suggestion, and is discarded with the drafts that it made', async () => {
    const before = await demo.db('plans').pluck('id')
    const id = await batchOf(null)
    await untilIt(id, 'tried')
    const found = await pairs(id)
    const hyd = found.find(pair => pair.shell?.code === 'HYD 240' && pair.shell.section === '01')
    expect(hyd?.source?.id).toBe(demo.courses.old)
    expect(found.every(pair => pair.shell?.origin === 'registrar')).toBe(true)
    expect(found.some(pair => pair.effect !== null)).toBe(true)
    await discardBatch(demo.db, office(), id)
    expect(await demo.db('plans').pluck('id')).toEqual(before)
    expect((await listBatches(demo.db, office())).batches.some(batch => batch.id === id)).toBe(false)
    await expect(batchOf('from,into\na,b')).rejects.toMatchObject({ code: 'no-table-of-pairs' })
    await expect(batchOf('source,shell\n"a,b')).rejects.toMatchObject({ code: 'table-not-read' })
  })
})
