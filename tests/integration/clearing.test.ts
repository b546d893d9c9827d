import { createHash } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { allStudentData, countsOf, studentDataNames } from '../../core/student-data/student-data'
import { insertStudentData } from '../../server/courses/student-data.queries'
import { countStudentData } from '../../server/courses/student-data.queries'
import { newId } from '../../server/db/rows'
import { readItem } from '../../server/courses/item'
import { effectOf } from '../../server/runs/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { readTraces } from '../../server/student-data/traces'
import { startAwaited } from '../../server/plans/start'
import { readRun } from '../../server/runs/runs'
import {
  destroyOverdue,
  readClearable,
  readClearings,
  readSweep,
  restoreClearing,
  saveKeepRules,
  sweep,
} from '../../server/student-data/clearing'
import { viewLog } from '../../server/log/log'
import type { PlanDocument } from '../../core/plan/document'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('clearing')
const me = () => demo.people.marchetti
const { run, planned } = useRolls(demo, me)

/** A digest of everything about people in a course: enrolments, and every kind of student data. */
async function aboutPeople(courseId: string): Promise<string> {
  const enrolments = await demo.db('enrolments').where({ course_id: courseId }).orderBy('id')
  const ids = enrolments.map(row => row.id)
  const rows: unknown[] = [enrolments]
  for (const { name } of allStudentData)
    rows.push(await demo.db(name).whereIn('enrolment_id', ids).orderByRaw('1, 2, 3'))
  return createHash('sha256').update(JSON.stringify(rows)).digest('hex')
}
const inPlace = (source: string): Promise<string> =>
  startAwaited(demo.db, me(), { sources: [source], term: '2027-summer', mode: 'in-place' })
async function decide(plan: string, change: Partial<PlanDocument['clearing']>): Promise<void> {
  const { document, revision } = await readPlan(demo.db, me(), plan)
  const clearing = { ...document.clearing, ...change }
  await savePlan(demo.db, me(), plan, revision, { document: { ...document, clearing } })
}
const nothing = countsOf(() => 0)
const talk = async (courseId: string): Promise<string> =>
  (
    await demo
      .db('items')
      .where({ course_id: courseId, kind: 'discussion' })
      .orderBy('lineage')
      .first('lineage')
  )?.lineage ?? ''

describe('a shell with leftovers', () => {
  it('is cleared of what hangs off people whom the registrar does not list; this term’s work stays', async () => {
    const shell = demo.courses.template
    const [listed] = await demo.db('enrolments').where({ course_id: shell, role: 'student' }).orderBy('id')
    const guest = newId()
    const person = await demo.db('people').where({ source_id: 'st-2026-001' }).first('id')
    const row = {
      course_id: shell,
      person_id: person?.id ?? '',
      role: 'student' as const,
      origin: 'hand' as const,
    }
    await demo.db('enrolments').insert({ ...row, id: guest, is_primary: false, may_run: false })
    const item = await talk(shell)
    const posts = allStudentData.find(({ name }) => name === 'posts')
    if (!posts || !listed) throw new Error('the demo has no posts, or nobody in the shell')
    const post = (enrolment: string, text: string) => ({
      enrolment_id: enrolment,
      item_lineage: item || newId(),
      values: { posted_at: '2026-12-01 10:00:00.000' },
      text,
    })
    await insertStudentData(demo.db, posts, [post(guest, 'An old post'), post(listed.id, 'A new post')])
    const before = await aboutPeople(shell)

    const plan = await planned([demo.courses.old], shell)
    const { rows, people } = await readClearable(demo.db, plan)
    expect(people).toMatchObject([{ enrolment: guest, name: 'Aldous Vantongle', origin: 'hand' }])
    expect(rows.filter(each => each.isStudent)).toMatchObject([{ kind: 'posts', enrolment: guest, rows: 1 }])
    await decide(plan, { people: { [guest]: 'clear' } })
    expect((await effectOf(demo.db, plan)).clearing).toMatchObject({
      rows: 1,
      people: 1,
      kinds: { posts: 1 },
    })
    const record = await readRun(demo.db, me(), await run(plan))
    expect(record.audit.find(line => line.kind === 'posts')).toMatchObject({
      before: 2,
      cleared: 1,
      after: 1,
    })
    expect(await demo.db('enrolments').where({ id: guest })).toEqual([])
    const [clearing] = (await readClearings(demo.db, shell)).clearings
    expect(clearing).toMatchObject({ rows: 1, people: 1, state: 'kept' })
    await restoreClearing(demo.db, me(), shell, clearing?.id ?? '')
    expect(await aboutPeople(shell)).toBe(before)
  })
})

describe('a course that is rolled in place', () => {
  it('is cleared of what last term’s students did; put back by hand, it is as before to the byte; once', async () => {
    const old = demo.courses.old
    const before = await aboutPeople(old)
    const held = await countStudentData(demo.db, old)
    for (const name of studentDataNames) expect(held[name], name).toBeGreaterThan(0)
    const plan = await inPlace(old)
    const spared = await talk(old)
    const ofSpared = (await countStudentData(demo.db, old, [spared])).posts
    await decide(plan, { kinds: { awards: 'keep' }, except: { posts: [spared] } })
    const run1 = await run(plan)
    const left = await countStudentData(demo.db, old)
    expect(left).toEqual({ ...nothing, students: held.students, awards: held.awards, posts: ofSpared })
    const { snapshot, audit } = await readRun(demo.db, me(), run1)
    expect(await countStudentData(demo.db, snapshot?.id ?? '')).toEqual(held)
    for (const line of audit) expect(line.after).toBe(line.before - line.cleared)

    const [clearing] = (await readClearings(demo.db, old)).clearings
    const restore = () => restoreClearing(demo.db, me(), old, clearing?.id ?? '')
    const both = await Promise.allSettled([restore(), restore()])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const roster = await demo.db('enrolments').where({ course_id: old, role: 'student' }).first('source_id')
    expect(roster).toEqual({ source_id: null })
    // The registrar's keys are the snapshot's since; everything else is as it was.
    await demo.db.raw(
      `UPDATE enrolments e JOIN enrolments s ON s.course_id = ? AND s.person_id = e.person_id AND s.role = e.role
       SET e.source_id = s.source_id, s.source_id = NULL WHERE e.course_id = ?`,
      [snapshot?.id ?? '', old],
    )
    expect(await aboutPeople(old)).toBe(before)
    await demo.db.raw(
      `UPDATE enrolments s JOIN enrolments e ON e.course_id = ? AND s.person_id = e.person_id AND s.role = e.role
       SET s.source_id = e.source_id, e.source_id = NULL WHERE s.course_id = ?`,
      [old, snapshot?.id ?? ''],
    )
    await expect(restore()).rejects.toMatchObject({ code: 'clearing-ended' })
  })
  it('gives its similarity checks another identity; last term’s is the snapshot’s', async () => {
    const identity = async (courseId: string): Promise<string | undefined> => {
      const rows = await demo
        .db('items')
        .where({ course_id: courseId })
        .whereRaw("settings LIKE '%similarity%'")
      const settings = JSON.stringify(rows[0]?.settings)
      return /"assignment\\*":\s?\\*"([^"\\]+)/.exec(settings)?.[1]
    }
    const lights = (await demo.db('courses').where({ source_id: 'lth220-01-2026a' }).first('id'))?.id ?? ''
    const was = await identity(lights)
    expect(was).toBe('lc-2026-5531')
    const { corrigall } = demo.people
    const rolls = useRolls(demo, () => corrigall)
    const plan = await startAwaited(demo.db, corrigall, {
      sources: [lights],
      term: '2027-summer',
      mode: 'in-place',
    })
    const { document, revision } = await readPlan(demo.db, corrigall, plan)
    await effectOf(demo.db, plan)
    const found = (await demo.db('trace_searches').where({ plan_id: plan }).first('found'))?.found as unknown
    const traces = (typeof found === 'string' ? JSON.parse(found) : found) as {
      id: string
      proposed: null | string
    }[]
    const open = traces.filter(trace => trace.proposed === null)
    const kept = { does: 'keep', because: 'asked them', by: 'H. Corrigall' } as const
    const answers = Object.fromEntries(open.map(trace => [trace.id, kept]))
    const { looked } = await readTraces(demo.db, corrigall, plan)
    const unseen = Object.fromEntries((looked?.unseen ?? []).map(({ id }) => [id, { by: 'H. Corrigall' }]))
    await savePlan(demo.db, corrigall, plan, revision, {
      document: { ...document, traces: { answers, unseen } },
    })
    const record = await readRun(demo.db, corrigall, await rolls.run(plan))
    expect(await identity(record.snapshot?.id ?? '')).toBe(was)
    const is = await identity(lights)
    expect(is).toMatch(/^[0-9a-f-]{36}$/)
    // Traces are taken out in place as well, and the snapshot keeps its texts.
    const reach = await demo
      .db('items')
      .where({ course_id: lights, title: 'How to reach us' })
      .first('lineage')
    const read = async (courseId: string) =>
      JSON.stringify(await readItem(demo.db, corrigall, courseId, reach?.lineage ?? ''))
    expect(await read(lights)).not.toContain('Tarrant')
    expect(await read(record.snapshot?.id ?? '')).toContain('Tarrant')
    const units = await demo.db('units').where({ course_id: lights }).pluck('title')
    expect(units).toContain('Unit 3: Fog, and the notes of a student')
    const around = JSON.stringify([
      await demo.db('rubrics').where({ course_id: lights }),
      await demo.db('furnishings').where({ course_id: lights }),
      await demo.db('grade_categories').where({ course_id: lights }),
    ])
    expect(around).not.toMatch(/Sele|Penhallow|Vane/)
    expect(around).toContain('as steady as a student')
  })
  it('is swept by the office: last term’s people go, and are kept aside like the rest', async () => {
    const { ellwood } = demo.people
    const { courses } = await readSweep(demo.db, ellwood)
    const old = courses.find(({ course }) => course.id === demo.courses.old)
    expect(old).toMatchObject({ students: 31 })
    const ids = courses.map(({ course }) => course.id)
    expect(await sweep(demo.db, ellwood, ids)).toEqual({ courses: 2, people: 45 })
    expect(await countStudentData(demo.db, demo.courses.old)).toEqual(nothing)
    expect(await sweep(demo.db, ellwood, ids)).toEqual({ courses: 0, people: 0 })
    expect((await readSweep(demo.db, ellwood)).courses).toEqual([])
  })
})

describe('what is kept aside', () => {
  it('is destroyed with its texts once the office’s time is over, and the log says so', async () => {
    const { ellwood } = demo.people
    await expect(saveKeepRules(demo.db, ellwood, 3, { days: 30 })).rejects.toMatchObject({
      code: 'rules-changed',
    })
    expect(await saveKeepRules(demo.db, ellwood, 0, { days: 30 })).toMatchObject({ days: 30, revision: 1 })
    expect(await destroyOverdue(demo.db)).toBe(0)
    const texts = await demo.db('kept_aside').where({ kind: 'journals' }).distinct().pluck('body_hash')
    expect(texts.length).toBeGreaterThan(0)
    // The snapshots hold these texts as well: they go only with the last who does.
    await demo.db('journals').delete()
    process.env.NORTHTIDE_NOW = '2027-06-05T20:00:00-04:00'
    try {
      expect(await destroyOverdue(demo.db)).toBeGreaterThan(1)
    } finally {
      process.env.NORTHTIDE_NOW = '2027-01-05T20:00:00-04:00'
    }
    expect(await demo.db('kept_aside')).toEqual([])
    expect(
      await demo.db('bodies').whereIn(
        'hash',
        texts.flatMap(hash => hash ?? []),
      ),
    ).toEqual([])
    const { lines } = await viewLog(demo.db, ellwood, { q: 'destroyed' })
    expect(lines.length).toBeGreaterThan(1)
    const [clearing] = (await readClearings(demo.db, demo.courses.old)).clearings
    expect(clearing?.state).toBe('destroyed')
    await expect(restoreClearing(demo.db, me(), demo.courses.old, clearing?.id ?? '')).rejects.toMatchObject({
      code: 'clearing-ended',
    })
  })
})
