import { afterEach, describe, expect, it } from 'vitest'
import { present } from '../../core/present'
import { loadOutline } from '../../server/courses/content.queries'
import { claimJob } from '../../server/jobs/jobs.queries'
import { startRunner } from '../../server/jobs/runner'
import { effectOf } from '../../server/runs/effect'
import { planState, readPlan, savePlan } from '../../server/plans/plans'
import { startPlan } from '../../server/plans/start'
import { askForRun, cancelRun, runJob, workOffRun } from '../../server/runs/run-jobs'
import { makeCourse, shellLines } from '../../server/shells/shells'
import { atOnce } from '../support/at-once'
import { useDemo } from '../support/demo'

const demo = useDemo('run_jobs')
const origin = 'https://northtide.example'
let made = 0
async function planned(): Promise<{ plan: string; target: string; fingerprint: string }> {
  const names = { term: '2027-spring', code: `JOB ${++made}`, section: '', title: `Tides for job ${made}` }
  const { id: target } = await makeCourse(demo.db, demo.people.marchetti, names)
  const plan = await startPlan(demo.db, demo.people.marchetti, { sources: [demo.courses.old], target })
  return { plan, target, fingerprint: (await effectOf(demo.db, plan)).fingerprint }
}
const ask = (plan: string, fingerprint: string): Promise<{ id: string }> =>
  askForRun(demo.db, demo.people.marchetti, plan, { fingerprint, origin })
const jobsOf = (plan: string) => demo.db('jobs').where({ kind: 'run', subject: plan }).orderBy('id')
const claimed = async () => present(await claimJob(demo.db, { run: runJob }))
afterEach(() => {
  delete process.env.NORTHTIDE_SMTP_URL
})

describe('a run that is asked for', () => {
  it('twenty times at once is one job, seen by others while it waits, done off the request, told by mail and in the log', async () => {
    process.env.NORTHTIDE_SMTP_URL = 'smtp://127.0.0.1:9'
    const { plan, target, fingerprint } = await planned()
    const { done } = await atOnce(() => ask(plan, fingerprint))
    expect(new Set(done.map(({ id }) => id)).size).toBe(1)
    expect(await jobsOf(plan)).toHaveLength(1)
    expect((await planState(demo.db, plan)).writing).toMatchObject({ step: 'waits', plan })
    const [line] = await shellLines(demo.db, demo.people.ellwood, [target])
    expect(line?.writing).toMatchObject({ by: 'I. Marchetti', step: 'waits' })
    expect(await loadOutline(demo.db, target)).toEqual([])
    const stop = startRunner(demo.db, { run: runJob }, { pause: 20 })
    await expect.poll(async () => (await planState(demo.db, plan)).state, { timeout: 20_000 }).toBe('run')
    await stop()
    expect((await readPlan(demo.db, demo.people.marchetti, plan)).run?.id).toBe(done[0]?.id)
    expect((await planState(demo.db, plan)).writing).toBeNull()
    const letters = await demo.db('mails').where('subject', 'like', 'JOB 1 is filled%')
    expect(letters).toHaveLength(1)
    expect(letters[0]?.body).toContain('Added 98 items in 7 units.')
    expect(letters[0]?.body).toContain(`${origin}/plans/${plan}/run`)
    expect(await demo.db('log').where({ action: 'plan.run', plan_id: plan })).toHaveLength(1)
  })
  it('is stopped until it is written, and not after', async () => {
    const { plan, target, fingerprint } = await planned()
    await ask(plan, fingerprint)
    await cancelRun(demo.db, demo.people.marchetti, plan)
    expect(await claimJob(demo.db, { run: runJob })).toBeNull()
    // In the middle of it: whoever stops it finds nothing written.
    await ask(plan, fingerprint)
    const job = await claimed()
    await cancelRun(demo.db, demo.people.marchetti, plan)
    await workOffRun(demo.db, job)
    expect(await loadOutline(demo.db, target)).toEqual([])
    expect((await planState(demo.db, plan)).outcome).toMatchObject({ state: 'cancelled' })
    expect(await demo.db('log').where({ action: 'plan.run-cancelled', plan_id: plan })).toHaveLength(2)
    await ask(plan, fingerprint)
    await workOffRun(demo.db, await claimed())
    await expect(cancelRun(demo.db, demo.people.marchetti, plan)).rejects.toMatchObject({
      code: 'run-already',
    })
    expect((await jobsOf(plan)).map(({ state }) => state)).toEqual(['cancelled', 'cancelled', 'done'])
  })
  it('keeps nothing where it is stopped at the last moment, after all has been written', async () => {
    const { plan, target, fingerprint } = await planned()
    await ask(plan, fingerprint)
    const job = await claimed()
    // The plan is marked as run right before the job is held for the last time.
    await demo.db.raw(
      `CREATE TRIGGER stop_late AFTER UPDATE ON plans FOR EACH ROW
       UPDATE jobs SET state = 'cancelled', token = NULL WHERE subject = NEW.id AND NEW.state = 'run'`,
    )
    try {
      await workOffRun(demo.db, job)
    } finally {
      await demo.db.raw('DROP TRIGGER stop_late')
    }
    expect(await loadOutline(demo.db, target)).toEqual([])
    expect(await demo.db('runs').where({ plan_id: plan })).toEqual([])
    expect((await planState(demo.db, plan)).state).toBe('draft')
    await cancelRun(demo.db, demo.people.marchetti, plan)
  })
  it('says why it wrote nothing, on the plan, in the log and by mail', async () => {
    process.env.NORTHTIDE_SMTP_URL = 'smtp://127.0.0.1:9'
    const { plan, target, fingerprint } = await planned()
    await ask(plan, fingerprint)
    const { revision, document } = await readPlan(demo.db, demo.people.marchetti, plan)
    await expect(
      savePlan(demo.db, demo.people.marchetti, plan, revision, { document }),
    ).rejects.toMatchObject({ code: 'plan-being-run' })
    // Somebody renames a page of the old course while the run waits.
    await demo
      .db('items')
      .where({ course_id: demo.courses.old, title: 'Syllabus' })
      .update({ title: 'Syllabus, anew' })
    await workOffRun(demo.db, await claimed())
    const { state, outcome } = await planState(demo.db, plan)
    expect([state, outcome?.state, outcome?.title]).toEqual([
      'draft',
      'failed',
      'Something changed since you looked',
    ])
    expect(await loadOutline(demo.db, target)).toEqual([])
    expect(await demo.db('mails').where('subject', `Nothing was written into JOB ${made}`)).toHaveLength(1)
    expect(await demo.db('log').where({ action: 'plan.run-failed', plan_id: plan })).toHaveLength(1)
  })
  it('is taken over where its holder is silent; the first holder then writes nothing', async () => {
    const { plan, fingerprint } = await planned()
    const { id } = await ask(plan, fingerprint)
    const first = await claimed()
    await demo.db('jobs').where({ id: first.id }).update({ lease_until: '2020-01-01' })
    const second = await claimed()
    expect(second.token).not.toBe(first.token)
    await Promise.all([workOffRun(demo.db, first), workOffRun(demo.db, second)])
    expect(await demo.db('runs').where({ plan_id: plan }).pluck('id')).toEqual([id])
    expect((await jobsOf(plan)).map(({ state }) => state)).toEqual(['done'])
  })
  it('ends as failed where it is begun again and again and never finished', async () => {
    const { plan, fingerprint } = await planned()
    await ask(plan, fingerprint)
    for (let times = 0; times < 6; times++) {
      const { id } = await claimed()
      await demo.db('jobs').where({ id }).update({ lease_until: '2020-01-01' })
    }
    expect(await claimJob(demo.db, { run: runJob })).toBeNull()
    expect((await planState(demo.db, plan)).outcome?.title).toBe('It was begun 6 times and never finished.')
  })
})
