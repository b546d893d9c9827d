import { beforeAll, describe, expect, it } from 'vitest'
import { ruleBy } from '../../core/dates/rule'
import type { PlanDocument } from '../../core/plan/document'
import { present } from '../../core/present'
import { loadOutline } from '../../server/courses/content.queries'
import { readCourse } from '../../server/courses/lines'
import { effectOf } from '../../server/runs/effect'
import { readPlan } from '../../server/plans/plans'
import { chooseSections } from '../../server/plans/sections'
import { startAwaited } from '../../server/plans/start'
import { comparePlanSheet } from '../../server/exchange/dates-in'
import { readRun } from '../../server/runs/runs'
import { readUndo, undoRun } from '../../server/runs/undo'
import { makeCourse } from '../../server/shells/shells'
import { newId } from '../../server/db/rows'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'
import { wall } from '../support/wall'

// What else is dated in a course, or goes by its dates: units that open, grading periods, grace allowances.

const demo = useDemo('other_dates')
const who = () => demo.people.sorrel
const { planned, run, digest } = useRolls(demo, who)
const source = { id: '' }
const openings = (nodes: Awaited<ReturnType<typeof loadOutline>>) =>
  nodes.filter(node => node.type === 'unit').map(({ opens, state }) => [opens, state])
const inDates =
  (changed: Partial<PlanDocument['dates']>) =>
  (document: PlanDocument): Partial<PlanDocument> => ({ dates: { ...document.dates, ...changed } })
let made = 0
async function shell(section = '', code = `OTH ${++made}`): Promise<string> {
  const names = { term: '2027-spring', code, section, title: `Birds of shell ${code} ${section}` }
  return (await makeCourse(demo.db, who(), names)).id
}
beforeAll(async () => {
  const course = await demo.db('courses').where({ source_id: 'orn130-01-2026a' }).first('id')
  source.id = course?.id ?? ''
})

describe('what else is dated', () => {
  it('is read with the course, and crosses with it; undone, the shell is as it was', async () => {
    expect(openings(await loadOutline(demo.db, source.id))).toEqual([
      ['2026-09-02T08:00', 'visible'],
      ['2026-09-14T08:00', 'visible'],
      ['2026-09-21T08:00', 'visible'],
    ])
    const target = await shell()
    const before = await digest(target)
    const plan = await planned([source.id], target)
    const { effect } = await effectOf(demo.db, plan)
    expect(effect).toMatchObject({ periods: [{ name: 'First half', items: 6 }], settle: { periods: 0 } })
    expect(effect.grace).toEqual({ count: 5, days: 2, addsUp: false })
    const id = await run(plan)
    const course = await readCourse(demo.db, who(), target)
    // Case 01 pairs the weeks of these two terms: week 1, 3 and 4, on the same weekdays.
    expect(openings(course.nodes)).toEqual([
      ['2027-01-06T08:00', 'visible'],
      ['2027-01-18T08:00', 'visible'],
      ['2027-01-25T08:00', 'visible'],
    ])
    expect(course.grace).toEqual(effect.grace)
    const periods = course.nodes.map(node => node.gradingPeriod).filter(Boolean)
    expect(periods).toEqual(Array.from({ length: 6 }, () => 'First half'))
    const { entries } = await readRun(demo.db, who(), id)
    expect(entries.find(({ entity }) => entity === 'grace')?.title).toBe(
      'Grace allowances: 5 allowances of 2 days each, at most one on one item',
    )
    expect(entries.filter(({ entity, opens }) => entity === 'unit' && opens !== null)).toHaveLength(3)
    expect(await planned([source.id], target).then(again => effectOf(demo.db, again))).toMatchObject({
      writes: false,
    })
    const { fingerprint } = await readUndo(demo.db, who(), id)
    await undoRun(demo.db, who(), id, { fingerprint, keepAside: false })
    expect(await digest(target)).toBe(before)
  })
  it('with no dates every unit that opened on one waits, and who counts is asked', async () => {
    const target = await shell()
    const plan = await planned([source.id], target, inDates({ rule: ruleBy('none') }))
    expect((await effectOf(demo.db, plan)).effect).toMatchObject({ periods: [], settle: { periods: 6 } })
    await run(plan)
    const nodes = await loadOutline(demo.db, target)
    expect(openings(nodes)).toEqual([
      [null, 'hidden'],
      [null, 'hidden'],
      [null, 'hidden'],
    ])
    expect(nodes.every(node => node.gradingPeriod === null)).toBe(true)
  })
  it('is as somebody decided: an opening held, a period chosen, no grace', async () => {
    const nodes = await loadOutline(demo.db, source.id)
    const [week] = nodes.filter(node => node.type === 'unit')
    const counts = present(nodes.find(node => node.points !== null))
    const target = await shell()
    const plan = await planned([source.id], target, document => ({
      ...inDates({
        itemRules: { [present(week).lineage]: ruleBy('set', { opens: '2027-01-07T12:00' }) },
        periods: { [counts.lineage]: 'Second half' },
      })(document),
      grace: { count: 0, days: 1, addsUp: true },
    }))
    await run(plan)
    const course = await readCourse(demo.db, who(), target)
    expect(openings(course.nodes)[0]).toEqual(['2027-01-07T12:00', 'visible'])
    expect(course.nodes.find(node => node.lineage === counts.lineage)?.gradingPeriod).toBe('Second half')
    expect(course.grace).toEqual({ count: 0, days: 1, addsUp: true })
  })
  it('opens a unit that the shell has already, where that opens on no date of its own', async () => {
    const target = await shell()
    const unit = {
      course_id: target,
      position: 0,
      state: 'visible',
      made_by: 'person',
      fixed: false,
    } as const
    await demo.db('units').insert([
      { ...unit, lineage: newId(), title: 'Week 2: Song', opens: null },
      { ...unit, lineage: newId(), title: 'Week 3: Migration', position: 1, opens: wall('2027-02-01T10:00') },
    ])
    const plan = await planned([source.id], target)
    const id = await run(plan)
    const opens = new Map((await loadOutline(demo.db, target)).map(node => [node.title, node.opens]))
    expect(opens.get('Week 2: Song')).toBe('2027-01-18T08:00')
    expect(opens.get('Week 3: Migration')).toBe('2027-02-01T10:00')
    const { effect, entries } = await readRun(demo.db, who(), id)
    expect(effect).toMatchObject({ added: { units: 1 }, replaced: 0 })
    expect(entries.filter(({ action }) => action === 'dated').map(({ title }) => title)).toEqual([
      'Week 2: Song',
    ])
  })
  it('of units in each section is by its own meetings, and is kept through an undo', async () => {
    const code = `OTH ${++made}`
    const [one, two] = [await shell('01', code), await shell('02', code)]
    for (const [course_id, weekday] of [
      [one, 1],
      [two, 4],
    ] as const)
      await demo.db('meetings').insert({ course_id, position: 0, weekday, start: '10:00', end: '11:00' })
    await demo.db('meetings').insert({
      course_id: source.id,
      position: 0,
      weekday: 3,
      start: '10:00',
      end: '11:00',
    })
    const plan = await planned([source.id], one, inDates({ rule: ruleBy('meetings') }))
    await chooseSections(demo.db, who(), plan, [two])
    const before = await digest(two)
    const id = await run(plan)
    const [first, second] = [await loadOutline(demo.db, one), await loadOutline(demo.db, two)]
    const weekdays = (nodes: typeof first) =>
      openings(nodes).map(([opens]) => new Date(`${opens}Z`).getUTCDay())
    // The old course met on Wednesdays; its first unit opened on one, the others on the Mondays after.
    expect([weekdays(first)[0], weekdays(second)[0]]).toEqual([1, 4])
    expect(openings(second)).not.toEqual(openings(first))
    const { fingerprint } = await readUndo(demo.db, who(), id)
    await undoRun(demo.db, who(), id, { fingerprint, keepAside: false })
    expect(await digest(two)).toBe(before)
    await demo.db('meetings').where({ course_id: source.id }).delete()
  })
  it('comes back in a sheet: a unit opens, and is never due', async () => {
    const plan = await planned([source.id], await shell())
    const [unit, item] = (await readPlan(demo.db, who(), plan)).source.nodes
    const sheet = [
      'Opens,Due,Key,Plan',
      `2027-01-08 09:00,,${present(unit).lineage},${plan}`,
      `2027-01-08 09:00,2027-01-09 09:00,${present(item).lineage},${plan}`,
    ]
    const told = await comparePlanSheet(demo.db, plan, 'dates.csv', Buffer.from(sheet.join('\n')))
    expect(told.changes.map(({ id, is }) => [id, is?.opens])).toEqual([
      [present(unit).lineage, '2027-01-08T09:00'],
      [present(item).lineage, '2027-01-08T09:00'],
    ])
    const wrong = `Due,Key,Plan\n2027-01-09 09:00,${present(unit).lineage},${plan}`
    const { problems } = await comparePlanSheet(demo.db, plan, 'dates.csv', Buffer.from(wrong))
    expect(problems.map(({ message }) => message)).toEqual(['Due: a unit only opens. Leave this cell empty.'])
  })
  it('in place moves on with the course, and its snapshot keeps what it was', async () => {
    const was = await loadOutline(demo.db, source.id)
    const plan = await startAwaited(demo.db, who(), {
      sources: [source.id],
      term: '2027-spring',
      mode: 'in-place',
    })
    const { snapshot } = await readRun(demo.db, who(), await run(plan))
    const after = await readCourse(demo.db, who(), source.id)
    expect(openings(after.nodes).map(([opens]) => opens)).toEqual([
      '2027-01-06T08:00',
      '2027-01-18T08:00',
      '2027-01-25T08:00',
    ])
    expect(after.nodes.filter(node => node.gradingPeriod === 'First half')).toHaveLength(6)
    expect(after.grace).toEqual({ count: 5, days: 2, addsUp: false })
    expect(await loadOutline(demo.db, present(snapshot).id)).toEqual(was)
  })
})
