import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { ruleSchema } from '../../core/dates/rule'
import { recommendedPlan } from '../../core/plan/document'
import { useDemo } from '../support/demo'
import { loadOutline } from '../../server/courses/content.queries'
import { readItem } from '../../server/courses/item'
import { countStudentData } from '../../server/courses/student-data.queries'
import { effectOf } from '../../server/runs/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { startPlan } from '../../server/plans/start'
import { readRun, runPlan } from '../../server/runs/runs'
import { noStudentData } from '../support/student-data'

const demo = useDemo('run')
const expected = JSON.parse(
  readFileSync(new URL('../cases/01-same-week-and-weekday.json', import.meta.url), 'utf8'),
) as {
  case: { items: { id: string; title: string }[] }
  expected: { items: { id: string; opens: string | null; due: string | null; closes: string | null }[] }
}

/** Everything in the database that is about one course, as one hash. */
async function imprint(courseId: string): Promise<string> {
  const rows: unknown[] = []
  for (const table of ['units', 'items', 'grade_categories', 'meetings', 'enrolments'])
    rows.push(await demo.db(table).where({ course_id: courseId }).orderByRaw('1, 2, 3'))
  for (const table of ['submissions', 'grades', 'attempts', 'posts', 'extensions'])
    rows.push(
      await demo
        .db(table)
        .join('enrolments', 'enrolments.id', `${table}.enrolment_id`)
        .where({ course_id: courseId })
        .orderByRaw('1, 2, 3')
        .select(`${table}.*`),
    )
  return createHash('sha256').update(JSON.stringify(rows)).digest('hex')
}
const start = (target: string) =>
  startPlan(demo.db, demo.people.marchetti, { sources: [demo.courses.old], target })

describe('a run', () => {
  it('that fails half-way leaves nothing', async () => {
    const plan = await start(demo.courses.empty)
    const before = [await imprint(demo.courses.empty), await imprint(demo.courses.old)]
    const { fingerprint } = await effectOf(demo.db, plan)
    // Categories and units are written by then, and the first item is not accepted.
    await demo.db.raw(
      `CREATE TRIGGER fails BEFORE INSERT ON items FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'disk on fire'`,
    )
    await expect(runPlan(demo.db, demo.people.marchetti, plan, fingerprint)).rejects.toThrow(/disk on fire/)
    await demo.db.raw('DROP TRIGGER fails')
    expect([await imprint(demo.courses.empty), await imprint(demo.courses.old)]).toEqual(before)
    for (const table of ['runs', 'kept_states'])
      expect(await demo.db(table).count({ count: '*' }).first()).toEqual({ count: 0 })
    expect((await readPlan(demo.db, demo.people.marchetti, plan)).state).toBe('draft')
  })
  it('refuses when plan, source or shell changed since the person looked, and writes nothing', async () => {
    const plan = await start(demo.courses.empty)
    const { fingerprint } = await effectOf(demo.db, plan)
    await demo
      .db('items')
      .where({ course_id: demo.courses.old, title: 'Syllabus' })
      .update({ title: 'Syllabus, new' })
    await expect(runPlan(demo.db, demo.people.marchetti, plan, fingerprint)).rejects.toMatchObject({
      status: 409,
    })
    await demo
      .db('items')
      .where({ course_id: demo.courses.old, title: 'Syllabus, new' })
      .update({ title: 'Syllabus' })
    expect(await loadOutline(demo.db, demo.courses.empty)).toEqual([])
  })
  it('fills the shell: same tree, case 01’s dates, shared bodies, nobody’s work; the old course untouched', async () => {
    const plan = await start(demo.courses.empty)
    const old = await imprint(demo.courses.old)
    const [{ count: bodies }] = (await demo.db('bodies').count({ count: '*' })) as [{ count: number }]
    const { effect, fingerprint } = await effectOf(demo.db, plan)
    const id = await runPlan(demo.db, demo.people.marchetti, plan, fingerprint)
    const [source, shell] = [
      await loadOutline(demo.db, demo.courses.old),
      await loadOutline(demo.db, demo.courses.empty),
    ]
    const bare = (nodes: typeof source) =>
      nodes.map(({ opens: _o, due: _d, closes: _c, madeBy: _m, gradingPeriod: _g, ...node }) => node)
    expect(bare(shell)).toEqual(bare(source))
    for (const { id: key, opens, due, closes } of expected.expected.items) {
      const { title } = expected.case.items.find(item => item.id === key)!
      expect(
        shell.find(node => node.title === title),
        title,
      ).toMatchObject({ opens, due, closes })
    }
    expect(await imprint(demo.courses.old)).toBe(old)
    expect(await demo.db('bodies').count({ count: '*' }).first()).toEqual({ count: bodies })
    expect(await countStudentData(demo.db, demo.courses.empty)).toEqual({ students: 29, ...noStudentData })
    const record = await readRun(demo.db, demo.people.marchetti, id)
    expect(record.effect).toEqual(effect)
    expect(record.entries.filter(entry => entry.entity === 'item')).toHaveLength(effect.added.items)
    expect(record.audit.every(line => line.onNewItems === 0 && line.before === line.after)).toBe(true)
    // Links in the copied pages lead to the copies.
    const syllabus = await readItem(
      demo.db,
      demo.people.marchetti,
      demo.courses.empty,
      shell.find(node => node.title === 'Syllabus')!.lineage,
    )
    expect(syllabus.html).toContain(`/courses/${demo.courses.empty}/items/`)
    expect(syllabus.html).not.toContain(demo.courses.old)
  })
  it('a second time adds nothing twice', async () => {
    const plan = await start(demo.courses.empty)
    const before = await imprint(demo.courses.empty)
    const { effect, fingerprint } = await effectOf(demo.db, plan)
    expect([effect.added.items, effect.already]).toEqual([0, 98])
    await expect(runPlan(demo.db, demo.people.marchetti, plan, fingerprint)).rejects.toMatchObject({
      status: 409,
      told: { title: 'There is nothing to add' },
    })
    expect(await imprint(demo.courses.empty)).toBe(before)
  })
  it('adds below what a shell holds, takes only what is chosen, and a held date as it is held', async () => {
    const plan = await start(demo.courses.template)
    const view = await readPlan(demo.db, demo.people.marchetti, plan)
    const kept = await loadOutline(demo.db, demo.courses.template)
    const unit = view.source.nodes.find(node => node.title === 'Getting your bearings')!
    const leave = view.source.nodes
      .filter(node => node.type === 'item' && node.unit !== unit.lineage)
      .map(node => node.lineage)
    const log = view.source.nodes.find(node => node.title === 'Shore log 1')!
    const document = { ...recommendedPlan(), carry: { ...recommendedPlan().carry, leave } }
    document.dates = {
      ...document.dates,
      itemRules: { [log.lineage]: ruleSchema.parse({ method: 'set', opens: null, due: '2027-01-21T12:00' }) },
    }
    await savePlan(demo.db, demo.people.marchetti, plan, view.revision, { document })
    await runPlan(demo.db, demo.people.marchetti, plan, (await effectOf(demo.db, plan)).fingerprint)
    const shell = await loadOutline(demo.db, demo.courses.template)
    expect(shell.slice(0, kept.length)).toEqual(kept)
    expect(shell.filter(node => node.depth === 0).map(node => [node.title, node.position])).toEqual([
      ['Start here', 0],
      ['Getting your bearings', 1],
    ])
    expect(shell.find(node => node.lineage === log.lineage)).toMatchObject({
      opens: null,
      due: '2027-01-21T12:00',
      closes: null,
    })
  })
  it('two at once into one shell: one writes, the other is told', async () => {
    const target = demo.courses.template
    const plans = [
      await startPlan(demo.db, demo.people.marchetti, { sources: [demo.courses.old], target }),
      await startPlan(demo.db, demo.people.marchetti, { sources: [demo.courses.empty], target }),
    ]
    // What an earlier run left behind is asked for.
    const take = (await loadOutline(demo.db, demo.courses.old)).map(node => node.lineage)
    for (const plan of plans) {
      const { revision, document } = await readPlan(demo.db, demo.people.marchetti, plan)
      await savePlan(demo.db, demo.people.marchetti, plan, revision, {
        document: { ...document, carry: { ...document.carry, leave: [], take } },
      })
    }
    const marks = await Promise.all(plans.map(async plan => (await effectOf(demo.db, plan)).fingerprint))
    const results = await Promise.allSettled(
      plans.map((plan, at) => runPlan(demo.db, demo.people.marchetti, plan, marks[at]!)),
    )
    expect(results.map(result => result.status).sort()).toEqual(['fulfilled', 'rejected'])
    expect(
      (results.find(result => result.status === 'rejected') as PromiseRejectedResult).reason,
    ).toMatchObject({ status: 409 })
    const lineages = (await loadOutline(demo.db, target)).map(node => node.lineage)
    expect(new Set(lineages).size).toBe(lineages.length)
  })
})

describe('a plan', () => {
  it('saved elsewhere in between is told, never overwritten', async () => {
    const plan = await startPlan(demo.db, demo.people.marchetti, {
      sources: [demo.courses.template],
      target: demo.courses.empty,
    })
    const { revision, document } = await readPlan(demo.db, demo.people.marchetti, plan)
    await savePlan(demo.db, demo.people.okonjo, plan, revision, {
      document: { ...document, carry: { ...document.carry, leave: ['x'] } },
    })
    await expect(
      savePlan(demo.db, demo.people.marchetti, plan, revision, { document }),
    ).rejects.toMatchObject({ code: 'plan-changed', told: { detail: expect.stringContaining('T. Okonjo') } })
    expect((await readPlan(demo.db, demo.people.marchetti, plan)).document.carry.leave).toEqual(['x'])
  })
  it('is taken up again for the same pair, and never from a course into itself', async () => {
    const sources: [string] = [demo.courses.template]
    const pair = { sources, target: demo.courses.empty }
    expect(await startPlan(demo.db, demo.people.okonjo, pair)).toBe(
      await startPlan(demo.db, demo.people.marchetti, pair),
    )
    await expect(
      startPlan(demo.db, demo.people.marchetti, { sources: [pair.target], target: pair.target }),
    ).rejects.toMatchObject({ status: 400 })
  })
})
