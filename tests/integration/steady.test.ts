import { describe, expect, it } from 'vitest'
import { present } from '../../core/present'
import { readLimits } from '../../core/formats/limits'
import { noRoster, type Roster } from '../../core/formats/oneroster/read'
import { hashOf } from '../../server/courses/bodies.queries'
import { loadOutline } from '../../server/courses/content.queries'
import { lockCourse } from '../../server/courses/courses.queries'
import { inTransaction } from '../../server/db/transaction'
import { troubleTold } from '../../server/db/trouble'
import { bufferSource } from '../../server/exchange/files/zip'
import { importUpload } from '../../server/exchange/import-file'
import { addPart, addUpload, completeUpload } from '../../server/exchange/uploads.queries'
import { addJob, claimJob } from '../../server/jobs/jobs.queries'
import { changeDuty } from '../../server/people/people'
import { countOffice, findPerson, setDuty } from '../../server/people/people.queries'
import { effectOf } from '../../server/runs/effect'
import { discardPlan, readPlan, savePlan } from '../../server/plans/plans'
import { chooseSections } from '../../server/plans/sections'
import { startAwaited, startPlan } from '../../server/plans/start'
import { askForFetch } from '../../server/registrar/registrar'
import { importRoster } from '../../server/registrar/roster'
import { askForRun, workOffRun } from '../../server/runs/run-jobs'
import { runPlan } from '../../server/runs/runs'
import { shareCourse } from '../../server/sharing/shares'
import { makeTemplate } from '../../server/sharing/templates'
import { sendRequest } from '../../server/shells/requests'
import { makeCourse } from '../../server/shells/shells'
import { jobKinds } from '../../server/work/kinds'
import { atOnce } from '../support/at-once'
import { useDemo } from '../support/demo'
import { oddPackage } from '../support/samples'
import { giveWayAt } from '../support/giving-way'

const demo = useDemo('steady')
const count = async (table: string): Promise<number> => {
  const [row] = await demo.db<{ count: number }>(table).count<{ count: number }[]>({ count: '*' })
  return row?.count ?? 0
}
const run = async (plan: string): Promise<string> =>
  runPlan(demo.db, demo.people.marchetti, plan, (await effectOf(demo.db, plan)).fingerprint)
/** A shell of Marchetti's that holds nothing. */
async function emptyShell(code: string): Promise<string> {
  const wish = { term: '2027-spring', code, section: '', title: `Tides for ${code}` }
  return (await makeCourse(demo.db, demo.people.marchetti, wish)).id
}

describe('what is asked for twenty times at once happens once', () => {
  it('a plan', async () => {
    const target = await emptyShell('HYD 301')
    const wish = { sources: [demo.courses.old] as [string], target }
    const { done } = await atOnce(() => startPlan(demo.db, demo.people.marchetti, wish))
    expect(new Set(done).size).toBe(1)
  })
  it('a plan for a term', async () => {
    const wish = { sources: [demo.courses.old] as [string], term: '2027-summer', mode: 'roll' as const }
    const { done } = await atOnce(() => startAwaited(demo.db, demo.people.marchetti, wish))
    expect(new Set(done).size).toBe(1)
    expect(await demo.db('courses').where({ origin: 'awaited' })).toHaveLength(1)
    await discardPlan(demo.db, demo.people.marchetti, done[0]!)
  })
  it('a run', async () => {
    const target = await emptyShell('HYD 302')
    const plan = await startPlan(demo.db, demo.people.marchetti, { sources: [demo.courses.old], target })
    const { fingerprint } = await effectOf(demo.db, plan)
    const { done } = await atOnce(() => runPlan(demo.db, demo.people.marchetti, plan, fingerprint))
    expect(done).toHaveLength(1)
    expect(await demo.db('runs').where({ plan_id: plan })).toHaveLength(1)
  })
  it('a course, a template, and what a department is given', async () => {
    const { marchetti } = demo.people
    const wish = { term: '2027-spring', code: 'HYD 303', section: '', title: 'Tides at Once' }
    const made = await atOnce(() => makeCourse(demo.db, marchetti, wish))
    expect(new Set(made.done.map(course => course.id)).size).toBe(1)
    const facts = { title: 'At once', subject: 'Hydrography', arrangement: 'weeks' as const, about: '' }
    expect((await atOnce(() => makeTemplate(demo.db, marchetti, demo.courses.old, facts))).done).toHaveLength(
      1,
    )
    const org = (await demo.db('courses').where({ id: demo.courses.old }).first('org_id'))!.org_id
    const shares = await atOnce(() =>
      shareCourse(demo.db, marchetti, demo.courses.old, { withheld: [], days: null, org }),
    )
    expect(new Set(shares.done.map(share => share.id)).size).toBe(1)
  })
  it('a request for a shell, and its mail', async () => {
    process.env.NORTHTIDE_SMTP_URL = 'smtp://127.0.0.1:9'
    const ask = { term: '2027-spring', code: 'HYD 999', section: '', words: '' }
    const { done, refused } = await atOnce(() => sendRequest(demo.db, demo.people.marchetti, ask))
    expect([done.length, refused]).toEqual([1, ['asked-already']])
    expect(await count('mails')).toBe(1)
    delete process.env.NORTHTIDE_SMTP_URL
  })
  it('a fetch of the registrar’s list', async () => {
    process.env.NORTHTIDE_REGISTRAR_URL = 'http://127.0.0.1:9/'
    const { done } = await atOnce(() => askForFetch(demo.db, demo.people.ellwood))
    expect(new Set(done.map(fetch => fetch.id)).size).toBe(1)
    delete process.env.NORTHTIDE_REGISTRAR_URL
  })
  it('two of the office who take each other’s duty leave one', async () => {
    const { ellwood, okonjo } = demo.people
    const top = (await demo.db('orgs').where({ source_id: 'org-port-ellery' }).first('id'))!.id
    await setDuty(demo.db, okonjo.id, top, 'office', true)
    const both = [ellwood, (await findPerson(demo.db, okonjo.id))!]
    const taken = { org: top, duty: 'office' as const, holds: false }
    const { done } = await atOnce(at => changeDuty(demo.db, both[at % 2]!, both[(at + 1) % 2]!.id, taken))
    expect(done.length).toBeGreaterThan(0)
    expect(await countOffice(demo.db)).toBe(1)
    await setDuty(demo.db, okonjo.id, top, 'office', false)
    await setDuty(demo.db, ellwood.id, top, 'office', true)
  })
})

describe('a place that waits for a shell', () => {
  it('can be neither rolled into by another plan, nor rolled from, nor shared; and its plan can be discarded', async () => {
    const { marchetti, ellwood } = demo.people
    const plan = await startAwaited(demo.db, marchetti, {
      sources: [demo.courses.old],
      term: '2027-summer',
      mode: 'roll',
    })
    const place = (await demo.db('plans').where({ id: plan }).first('target_course_id'))!.target_course_id
    const into = { sources: [demo.courses.template] as [string], target: place }
    await expect(startPlan(demo.db, ellwood, into)).rejects.toMatchObject({ code: 'not-found' })
    const from = { sources: [place] as [string], target: demo.courses.empty }
    await expect(startPlan(demo.db, marchetti, from)).rejects.toMatchObject({ code: 'place-only' })
    const share = { withheld: [], days: null, org: null }
    await expect(shareCourse(demo.db, marchetti, place, share)).rejects.toMatchObject({ code: 'place-only' })
    await discardPlan(demo.db, marchetti, plan)
    expect(await demo.db('courses').where({ id: place })).toEqual([])
  })
})

describe('where the database gives way', () => {
  /** What must hold whatever gave way: counts of everything that a run writes. */
  const state = async (): Promise<number[]> =>
    Promise.all(
      ['items', 'units', 'runs', 'kept_states', 'section_dates', 'joined_sections', 'log'].map(count),
    )

  it('only the outermost transaction is begun again, and all of it', async () => {
    for (let at = 0, more = true; more; at++) {
      const before = await count('orgs')
      let begun = 0
      const stop = giveWayAt(demo.db, at)
      await inTransaction(demo.db, async outer => {
        begun++
        await outer('orgs').insert(org(`outer-${at}`))
        await inTransaction(outer, async inner => {
          await inner('orgs').insert(org(`inner-${at}`))
        })
        await outer('orgs')
          .where({ source_id: `inner-${at}` })
          .update({ name: 'Seen' })
      })
      const { gaveWay } = stop()
      more = gaveWay
      expect([at, begun, await count('orgs')]).toEqual([at, gaveWay ? 2 : 1, before + 2])
    }
  })
  const org = (key: string) => ({
    id: `0199bbbb-0000-7000-8000-${Buffer.from(key).toString('hex').slice(-12).padStart(12, '0')}`,
    source_id: key,
    name: key,
    type: 'department',
    parent_source_id: 'org-port-ellery',
  })
  it('a run is written whole or not at all, at whichever statement: with its section, its facts and its log', async () => {
    const { marchetti } = demo.people
    let wrote: number[] | undefined
    for (let at = 0, more = true; more; at += at < 6 ? 1 : 11) {
      const target = await emptyShell(`HYD 4${at}`)
      const section = (
        await makeCourse(demo.db, marchetti, {
          term: '2027-spring',
          code: `HYD 4${at}`,
          section: '02',
          title: `Tides for HYD 4${at}, evenings`,
        })
      ).id
      const plan = await startPlan(demo.db, marchetti, { sources: [demo.courses.old], target })
      await chooseSections(demo.db, marchetti, plan, [section])
      const { fingerprint } = await effectOf(demo.db, plan)
      const before = await state()
      const stop = giveWayAt(demo.db, at)
      await runPlan(demo.db, marchetti, plan, fingerprint)
      more = stop().gaveWay
      const after = await state()
      const added = after.map((n, index) => n - before[index]!)
      wrote ??= added
      expect([at, added]).toEqual([at, wrote])
    }
    expect(wrote?.[0]).toBeGreaterThan(90)
  }, 240_000)
  /** Lays a package aside and asks for it to be brought in, as the page Files does; answers the job as a thread holds it. */
  async function askedImport(at: number) {
    const { marchetti } = demo.people
    const bytes = oddPackage()
    const id = await addUpload(demo.db, marchetti.id, `odd-${at}.imscc`, bytes.length)
    await addPart(demo.db, id, 0, bytes)
    await completeUpload(demo.db, id, bytes.length, hashOf(bytes))
    const payload = {
      as: 'course' as const,
      term: '2026-autumn',
      code: 'HYD 118',
      section: '',
      title: `Harbour ${at}`,
    }
    await addJob(demo.db, { kind: 'import', subject: id, personId: marchetti.id, payload })
    return (await claimJob(demo.db, { import: jobKinds.import }))!
  }
  const bringIn = (job: Awaited<ReturnType<typeof askedImport>>): Promise<void> =>
    importUpload(demo.db, job, bufferSource(oddPackage()), readLimits, () => {})
  const importedState = async (): Promise<number[]> =>
    Promise.all(['courses', 'units', 'items', 'enrolments', 'log'].map(count))
  it('a package is brought in whole, at whichever statement of the transactions that nest in it', async () => {
    let wrote: number[] | undefined
    for (let at = 0, more = true; more; at += at < 4 ? 1 : 3) {
      const job = await askedImport(at)
      const before = await importedState()
      const stop = giveWayAt(demo.db, at)
      await bringIn(job)
      more = stop().gaveWay
      const added = (await importedState()).map((n, index) => n - before[index]!)
      wrote ??= added
      expect([at, added]).toEqual([at, wrote])
      expect((await demo.db('uploads').where({ id: job.subject }).first('outcome'))?.outcome).not.toBeNull()
    }
    expect(wrote?.[0]).toBe(1)
  }, 240_000)
  it('the same package taken in eight times at once is eight whole courses', async () => {
    const jobs: Awaited<ReturnType<typeof askedImport>>[] = []
    for (let at = 100; at < 108; at++) jobs.push(await askedImport(at))
    const before = await importedState()
    const { done } = await atOnce(at => bringIn(jobs[at]!), jobs.length)
    expect(done).toHaveLength(8)
    const added = (await importedState()).map((n, index) => n - before[index]!)
    expect(added.every(n => n % 8 === 0)).toBe(true)
    expect(added[0]).toBe(8)
  })
  it('a roster is brought in whole, and a fetch is asked for once, at whichever statement', async () => {
    process.env.NORTHTIDE_REGISTRAR_URL = 'http://127.0.0.1:9/'
    for (let at = 0, more = true; more; at++) {
      await demo.db('fetches').delete()
      await demo.db('jobs').where({ kind: 'fetch' }).delete()
      const user = { sourcedId: `pe-new-${at}`, username: `new-${at}`, givenName: 'New', familyName: 'Body' }
      const users = [{ ...user, email: '', role: 'teacher', enabledUser: 'true' } as Roster['users'][number]]
      const before = [await count('people'), await count('log')]
      const stop = giveWayAt(demo.db, at)
      await inTransaction(demo.db, async trx => {
        await importRoster(trx, { ...noRoster, users })
        await askForFetch(trx, demo.people.ellwood)
      })
      more = stop().gaveWay
      expect([at, await count('people'), await count('log')]).toEqual([at, before[0]! + 1, before[1]! + 1])
      expect([await count('fetches'), (await demo.db('jobs').where({ kind: 'fetch' })).length]).toEqual([
        1, 1,
      ])
    }
    delete process.env.NORTHTIDE_REGISTRAR_URL
  })
  it('it is said when it gives way every time, and nothing is written', async () => {
    const target = await emptyShell('HYD 500')
    let asked = 0
    await expect(
      inTransaction(demo.db, async trx => {
        asked++
        await lockCourse(trx, target)
        throw Object.assign(new Error('forced'), { code: 'ER_LOCK_DEADLOCK' })
      }),
    ).rejects.toMatchObject({ code: 'busy', status: 503 })
    expect(asked).toBeGreaterThan(3)
  })
})

describe('a connection that is lost while a run is committed', () => {
  /** Loses the connection at COMMIT, before or after the database has done it. */
  function loseAtCommit(when: 'before' | 'after'): () => void {
    const client = Object.getPrototypeOf(demo.db.client) as {
      _query: (this: unknown, connection: unknown, statement: { sql?: string }) => Promise<unknown>
    }
    const { _query: real } = client
    let lost = false
    client._query = async function (connection, statement) {
      if (lost || !/^COMMIT/i.test(statement.sql ?? '') || !wrote.has(connection as object)) {
        if (/^INSERT INTO items/i.test(statement.sql ?? '')) wrote.add(connection as object)
        return real.call(this, connection, statement)
      }
      lost = true
      await real.call(this, connection, when === 'after' ? statement : { ...statement, sql: 'ROLLBACK' })
      throw Object.assign(new Error('lost'), { code: 'PROTOCOL_CONNECTION_LOST', fatal: true })
    }
    const wrote = new WeakSet<object>()
    return () => {
      client._query = real
    }
  }
  for (const [when, words] of [
    ['after', 'is not written a second time, where the database had done it'],
    ['before', 'has its run begun again, where it had not'],
  ] as const)
    it(words, async () => {
      const target = await emptyShell(`HYD 51${when.length}`)
      const plan = await startPlan(demo.db, demo.people.marchetti, { sources: [demo.courses.old], target })
      const { fingerprint } = await effectOf(demo.db, plan)
      const { id } = await askForRun(demo.db, demo.people.marchetti, plan, { fingerprint, origin: '' })
      const stop = loseAtCommit(when)
      await workOffRun(demo.db, present(await claimJob(demo.db, { run: jobKinds.run })))
      stop()
      expect((await loadOutline(demo.db, target)).length > 0).toBe(when === 'after')
      // Whoever held it is gone; its lease ends.
      await demo.db('jobs').where({ subject: plan, state: 'running' }).update({ lease_until: '2020-01-01' })
      const again = await claimJob(demo.db, { run: jobKinds.run })
      expect(again === null).toBe(when === 'after')
      if (again) await workOffRun(demo.db, again)
      expect(await demo.db('runs').where({ plan_id: plan }).pluck('id')).toEqual([id])
      expect(await demo.db('jobs').where({ subject: plan }).pluck('state')).toEqual(['done'])
    })
})

describe('a log of a fault of the database', () => {
  it('holds its code and where it happened, never the values of the statement', async () => {
    const secret = 'Maren Oduya, 18 Harbour Street'
    const row = {
      id: 'x'.repeat(60),
      source_id: secret,
      name: secret,
      type: 'person',
      parent_source_id: null,
    }
    const fault = await demo
      .db('orgs')
      .insert(row)
      .then(
        () => null,
        (error: unknown) => error,
      )
    expect(String(fault)).toContain(secret)
    const told = troubleTold(fault)
    expect(told?.code).toBe('ER_DATA_TOO_LONG')
    expect(told?.stack).toContain('at ')
    expect(JSON.stringify(told)).not.toContain('Oduya')
  })
})

describe('something that was deleted in the shell', () => {
  it('stays away when its source is rolled in again', async () => {
    const target = await emptyShell('HYD 520')
    const { marchetti } = demo.people
    await run(await startPlan(demo.db, marchetti, { sources: [demo.courses.old], target }))
    const outline = await loadOutline(demo.db, target)
    const page = outline.find(node => node.kind === 'page')!
    await demo.db('items').where({ course_id: target, lineage: page.lineage }).update({ state: 'deleted' })
    const gone = outline.filter(node => node.kind === 'quiz').map(node => node.lineage)
    await demo.db('items').where({ course_id: target }).whereIn('lineage', gone).delete()
    const again = await startPlan(demo.db, marchetti, { sources: [demo.courses.old], target })
    const { effect } = await effectOf(demo.db, again)
    expect(effect).toMatchObject({ deletedThere: 1 + gone.length, added: { items: 0 } })
    // One thing is asked for again, and comes; the others stay away.
    const [wanted] = gone
    const { revision, document } = await readPlan(demo.db, marchetti, again)
    await savePlan(demo.db, marchetti, again, revision, {
      document: { ...document, carry: { ...document.carry, take: [wanted!] } },
    })
    await run(again)
    const after = (await loadOutline(demo.db, target)).map(node => node.lineage)
    expect(after).not.toContain(page.lineage)
    expect(after.filter(lineage => gone.includes(lineage))).toEqual([wanted])
  })
})
