import { describe, expect, it } from 'vitest'
import { present } from '../../core/present'
import { loadOutline } from '../../server/courses/content.queries'
import { json, jsonOf, newId } from '../../server/db/rows'
import { effectOf } from '../../server/runs/effect'
import { readRun, runPlan } from '../../server/runs/runs'
import { dropOldStates } from '../../server/runs/states.queries'
import { readUndo, undoRun } from '../../server/runs/undo'
import { makeCourse } from '../../server/shells/shells'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

// What a run keeps and tells beside what it writes: conditions that only matter in a shell with something in it.
const demo = useDemo('run_details')
const who = () => demo.people.marchetti
const { planned, run, handIn } = useRolls(demo, who)
let made = 0
async function shell(): Promise<string> {
  const names = { term: '2027-spring', code: `DET ${++made}00`, section: '', title: `Details ${made}` }
  return (await makeCourse(demo.db, who(), names)).id
}
const itemsOf = async (course: string) =>
  (await loadOutline(demo.db, course)).filter(({ type }) => type === 'item')
const titled = (items: Awaited<ReturnType<typeof itemsOf>>, title: string) =>
  present(items.find(item => item.title === title))
/** What the log kept of the last time that something was done to a course. */
async function logged(action: string, course: string): Promise<unknown> {
  const row = await demo.db('log').where({ action, course_id: course }).orderBy('id', 'desc').first('detail')
  return jsonOf(present(present(row).detail))
}

describe('a run into a shell in which students work', () => {
  it('brings an item up to date on which a student worked: only what is new must be nobody’s', async () => {
    const target = await shell()
    const all = await itemsOf(demo.courses.old)
    const lab = titled(all, 'Lab sheet 1')
    const first = await planned([demo.courses.old], target, ({ carry }) => ({
      carry: {
        ...carry,
        leave: all.filter(({ lineage }) => lineage !== lab.lineage).map(({ lineage }) => lineage),
      },
    }))
    await run(first)
    await handIn(target, lab.lineage)
    await demo
      .db('items')
      .where({ course_id: demo.courses.old, lineage: lab.lineage })
      .update({ points: '25' })
    const again = await planned([demo.courses.old], target)
    const record = await readRun(demo.db, who(), await run(again))
    expect(record.effect.updated.things).toBeGreaterThan(0)
    expect(titled(await itemsOf(target), 'Lab sheet 1').points).toBe(250_000)
    expect(record.audit.find(({ kind }) => kind === 'completions')).toMatchObject({
      before: 1,
      after: 1,
      onNewItems: 0,
    })
    expect(await logged('plan.run', target)).toMatchObject({
      added: { items: record.effect.added.items, units: record.effect.added.units },
    })
  })
})

describe('a run that was agreed to', () => {
  it('writes nothing once a student came into the old course, whose name nobody has looked for', async () => {
    const target = await shell()
    const plan = await planned([demo.courses.old], target)
    const { fingerprint } = await effectOf(demo.db, plan)
    const id = newId()
    await demo.db('people').insert({ id, source_id: 'pe-late', given_name: 'Runa', family_name: 'Lateholm' })
    await demo.db('enrolments').insert({
      id,
      course_id: demo.courses.old,
      person_id: id,
      role: 'student',
      origin: 'registrar',
      is_primary: false,
    })
    await expect(runPlan(demo.db, who(), plan, fingerprint)).rejects.toMatchObject({
      code: 'changed-since-consent',
    })
    expect(await itemsOf(target)).toEqual([])
    await demo.db('enrolments').where({ id }).delete()
  })
})

describe('what undo says', () => {
  it('counts what is not deleted, and the log keeps how many records of work were put aside', async () => {
    const target = await shell()
    const id = await run(await planned([demo.courses.old], target))
    const items = await itemsOf(target)
    await demo
      .db('items')
      .where({ course_id: target, lineage: titled(items, 'Syllabus').lineage })
      .update({ state: 'deleted' })
    expect((await readUndo(demo.db, who(), id)).now.items).toBe(items.length - 1)
    await handIn(target, titled(items, 'Lab sheet 1').lineage)
    const enrolment = await demo.db('enrolments').where({ course_id: target, role: 'student' }).first('id')
    await demo.db('completions').insert({
      enrolment_id: present(enrolment).id,
      item_lineage: titled(items, 'Lab sheet 2').lineage,
      finished_at: '2027-01-21 10:00:00',
    })
    const { fingerprint } = await readUndo(demo.db, who(), id)
    await undoRun(demo.db, who(), id, { fingerprint, keepAside: true })
    expect(await logged('plan.undone', target)).toMatchObject({ work: 2 })
  })
  it('is of what this run cleared alone: what another cleared is not put back by it', async () => {
    const target = await shell()
    const id = await run(await planned([demo.courses.old], target))
    const other = newId()
    await demo.db('clearings').insert({
      id: other,
      course_id: target,
      run_id: null,
      person_id: who().id,
      cleared_at: '2027-01-05 00:00:00',
      keep_until: '2027-12-31 00:00:00',
      state: 'kept',
      counts: json({ completions: 7 }),
    })
    expect((await readUndo(demo.db, who(), id)).cleared).toBe(0)
    const { fingerprint } = await readUndo(demo.db, who(), id)
    await undoRun(demo.db, who(), id, { fingerprint, keepAside: false })
    expect(await demo.db('clearings').where({ id: other }).first('state')).toEqual({ state: 'kept' })
  })
  it('is possible within the days that the office keeps such things', async () => {
    const target = await shell()
    const id = await run(await planned([demo.courses.old], target))
    await demo.db('kept_states').where({ course_id: target }).update({ kept_at: '2026-12-20' })
    await dropOldStates(demo.db, 30)
    expect((await readUndo(demo.db, who(), id)).barred).toBeNull()
    await dropOldStates(demo.db, 10)
    expect((await readUndo(demo.db, who(), id)).barred?.title).toContain('cannot be undone any more')
  })
})

describe('settings that are given', () => {
  it('are no change of the shell’s when the same is run again', async () => {
    const target = await shell()
    const quiz = present((await itemsOf(demo.courses.old)).find(({ kind }) => kind === 'quiz'))
    const plan = await planned([demo.courses.old], target, ({ carry }) => ({
      carry: { ...carry, settings: { [quiz.lineage]: { attempts: '3' } } },
    }))
    expect((await effectOf(demo.db, plan)).effect.given).toBe(1)
    await run(plan)
    const again = await planned([demo.courses.old], target)
    const { effect, writes } = await effectOf(demo.db, again)
    expect([effect.updated.things, writes]).toEqual([0, false])
  })
})
