import { describe, expect, it } from 'vitest'
import type { WallTime } from '../../core/calendar/day'
import type { Parts } from '../../core/editing/parts'
import { present } from '../../core/present'
import { loadOutline } from '../../server/courses/content.queries'
import { json, jsonOf } from '../../server/db/rows'
import { editCourse, readEdits, undoEdit } from '../../server/editing/edits'
import { chooseSections } from '../../server/plans/sections'
import { effectOf } from '../../server/runs/effect'
import { makeCourse } from '../../server/shells/shells'
import { bringMore, readMore } from '../../server/plans/more'
import { readPlan } from '../../server/plans/plans'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('edits')
const who = () => demo.people.marchetti
const { planned, run, handIn } = useRolls(demo, who)
let made = 0
const makeShell = async (section = ''): Promise<string> => {
  const names = {
    term: '2027-spring',
    code: `EDI ${section ? made : ++made}00`,
    section,
    title: `Edits ${made}`,
  }
  return (await makeCourse(demo.db, who(), names)).id
}
/** A shell that was just filled from the old course. */
async function filled(): Promise<string> {
  const target = await makeShell()
  await run(await planned([demo.courses.old], target))
  return target
}
const at = (text: string): WallTime => text as WallTime
const node = async (course: string, title: string) =>
  present((await loadOutline(demo.db, course, new Set(), true)).find(each => each.title === title))
const change = async (course: string, things: Record<string, Parts>, person = who()): Promise<string> =>
  present((await editCourse(demo.db, person, course, { does: 'change', things })).id)
/** Edits of one row that come at once are one: here each is to stand for itself. */
async function apart(course: string): Promise<void> {
  const rows = await demo.db('course_edits').where({ course_id: course }).orderBy('id')
  for (const [index, row] of rows.entries())
    await demo
      .db('course_edits')
      .where({ id: row.id })
      .update({ id: `0199aaaa-0000-7000-8000-${course.slice(-7)}${String(index).padStart(5, '0')}` })
}
const words = async (course: string): Promise<string[]> =>
  (await readEdits(demo.db, course)).edits.map(edit => edit.words)
const idOf = async (course: string, words: string): Promise<string> =>
  present((await readEdits(demo.db, course)).edits.find(edit => edit.words === words)).id

describe('parts of a shell', () => {
  it('are changed, said and logged each in words, and each can be taken back, the third of five too', async () => {
    const shell = await filled()
    const { lineage } = await node(shell, 'Lab sheet 1')
    const [category] = (
      await demo.db('grade_categories').where({ course_id: shell }).orderBy('position')
    ).slice(1)
    const steps: [Parts, string][] = [
      [{ due: at('2027-01-14T12:00') }, 'set the due date of “Lab sheet 1” to Thu 14 Jan 12:00'],
      [{ points: 250_000 }, 'gave “Lab sheet 1” 25 points'],
      [{ state: 'listed' }, 'listed “Lab sheet 1”'],
      [{ category: present(category).lineage }, `put “Lab sheet 1” into the category “${category?.title}”`],
      [{ attempts: '3' }, 'set attempts of “Lab sheet 1” to 3'],
    ]
    for (const [parts, said] of steps) {
      await change(shell, { [lineage]: parts })
      expect((await words(shell))[0]).toBe(said)
      await apart(shell)
    }
    expect(await node(shell, 'Lab sheet 1')).toMatchObject({
      due: '2027-01-14T12:00',
      points: 250_000,
      state: 'listed',
      category: category?.lineage,
    })
    await undoEdit(demo.db, who(), { id: shell, edit: await idOf(shell, 'listed “Lab sheet 1”') })
    expect(await node(shell, 'Lab sheet 1')).toMatchObject({ state: 'visible', points: 250_000 })
    expect(await words(shell)).toHaveLength(4)
    const settings = await demo.db('items').where({ course_id: shell, lineage }).first('settings')
    expect(jsonOf(present(settings).settings)).toMatchObject({ attempts: '3' })
    const logged = await demo.db('log').where({ course_id: shell, action: 'course.edited' }).orderBy('id')
    expect(logged.map(({ detail }) => jsonOf(detail).words)).toEqual(steps.map(([, said]) => said))
  })
  it('that were changed since stay when an edit is taken back, and one of which nothing is left is refused', async () => {
    const shell = await filled()
    const [one, two] = [await node(shell, 'Lab sheet 1'), await node(shell, 'Lab sheet 2')]
    await change(shell, { [one.lineage]: { points: 10_000 }, [two.lineage]: { points: 10_000 } })
    await change(shell, { [one.lineage]: { points: 20_000 } })
    await apart(shell)
    const first = await idOf(shell, 'changed points of 2 things')
    expect((await undoEdit(demo.db, who(), { id: shell, edit: first })).overtaken).toBe(1)
    expect((await node(shell, 'Lab sheet 1')).points).toBe(20_000)
    expect((await node(shell, 'Lab sheet 2')).points).toBe(two.points)
    await change(shell, { [two.lineage]: { title: 'Lab sheet two' } })
    await change(shell, { [two.lineage]: { title: 'Lab sheet II' } }, demo.people.ellwood)
    const renamed = await idOf(shell, 'renamed “Lab sheet 2” to “Lab sheet two”')
    await expect(undoEdit(demo.db, who(), { id: shell, edit: renamed })).rejects.toMatchObject({
      code: 'edit-overtaken',
    })
  })
  it('of one row within two seconds are one edit and one line of the log; undone they are as before both', async () => {
    const shell = await filled()
    const lab = await node(shell, 'Lab sheet 1')
    const first = await change(shell, { [lab.lineage]: { due: at('2027-01-14T12:00') } })
    const second = await change(shell, { [lab.lineage]: { due: at('2027-01-15T12:00'), points: 10_000 } })
    expect(second).toBe(first)
    expect(await words(shell)).toEqual(['changed due dates, points of “Lab sheet 1”'])
    const logged = await demo.db('log').where({ course_id: shell, action: 'course.edited' })
    expect(logged.map(({ detail }) => jsonOf(detail).words)).toEqual(await words(shell))
    await undoEdit(demo.db, who(), { id: shell, edit: first })
    expect(await node(shell, 'Lab sheet 1')).toMatchObject({ due: lab.due, points: lab.points })
  })
  it('that are so already are no edit', async () => {
    const shell = await filled()
    const { lineage, due } = await node(shell, 'Lab sheet 1')
    expect(
      await editCourse(demo.db, who(), shell, { does: 'change', things: { [lineage]: { due } } }),
    ).toEqual({
      id: null,
      lineage: null,
    })
    expect(await words(shell)).toEqual([])
  })
  it('are refused at the field: another year, what the institution fixed, what is not there', async () => {
    const shell = await filled()
    const { lineage } = await node(shell, 'Lab sheet 1')
    await expect(change(shell, { [lineage]: { due: at('2047-01-14T12:00') } })).rejects.toMatchObject({
      code: 'edit-refused',
      told: { errors: [{ field: `things.${lineage}.due` }] },
    })
    await demo.db('items').where({ course_id: shell, lineage }).update({ fixed: true })
    await expect(change(shell, { [lineage]: { title: 'Mine' } })).rejects.toMatchObject({
      code: 'edit-refused',
    })
    await change(shell, { [lineage]: { due: at('2027-01-14T12:00') } })
    await expect(change(shell, { [demo.courses.old]: { title: 'x' } })).rejects.toMatchObject({ status: 404 })
    await expect(change(shell, { [lineage]: { points: 1 } }, demo.people.sorrel)).rejects.toMatchObject({
      code: 'may-not-edit',
    })
  })
  it('changed by two at once are both kept', async () => {
    const shell = await filled()
    const { lineage } = await node(shell, 'Lab sheet 1')
    await Promise.all([
      change(shell, { [lineage]: { points: 70_000 } }),
      change(shell, { [lineage]: { due: at('2027-01-14T12:00') } }, demo.people.ellwood),
    ])
    expect(await node(shell, 'Lab sheet 1')).toMatchObject({ points: 70_000, due: '2027-01-14T12:00' })
    expect(await words(shell)).toHaveLength(2)
  })
})

describe('removing', () => {
  it('takes along what stands in a unit, and brings it back; what students worked on is never removed', async () => {
    const shell = await filled()
    const count = async (): Promise<number> => (await loadOutline(demo.db, shell)).length
    const before = await count()
    const unit = present((await loadOutline(demo.db, shell)).find(({ type }) => type === 'unit'))
    const inside = (await loadOutline(demo.db, shell)).filter(each => each.unit === unit.lineage)
    const gone = await change(shell, { [unit.lineage]: { state: 'deleted' } })
    expect(before - (await count())).toBe(1 + inside.length)
    // One item comes back, and its unit with it.
    await change(shell, { [present(inside[0]).lineage]: { state: 'visible' } })
    expect(before - (await count())).toBe(inside.length - 1)
    expect((await undoEdit(demo.db, who(), { id: shell, edit: gone })).overtaken).toBe(2)
    expect(await count()).toBe(before)

    const lab = await node(shell, 'Lab sheet 1')
    await handIn(shell, lab.lineage)
    await expect(change(shell, { [lab.lineage]: { state: 'deleted' } })).rejects.toMatchObject({
      code: 'edit-has-work',
      told: { title: 'Students have worked on “Lab sheet 1”' },
    })
    await expect(change(shell, { [present(lab.unit)]: { state: 'deleted' } })).rejects.toMatchObject({
      code: 'edit-has-work',
    })
    await change(shell, { [lab.lineage]: { state: 'hidden' } })
  })
})

describe('an edited shell', () => {
  it('is run into again with each part that was edited kept as the shell’s own', async () => {
    const shell = await filled()
    const { lineage } = await node(shell, 'Lab sheet 1')
    const [other] = await demo.db('grade_categories').where({ course_id: shell }).orderBy('position', 'desc')
    const parts: Parts = {
      title: 'Lab sheet one',
      due: at('2027-01-14T12:00'),
      points: 250_000,
      category: present(other).lineage,
      state: 'listed',
      attempts: '3',
    }
    await change(shell, { [lineage]: parts })
    const stands = await demo.db('items').where({ course_id: shell, lineage }).first()
    // The source changes as well, in other things and in the same.
    const old = { course_id: demo.courses.old, lineage }
    const was = (await demo.db('items').where(old).first('points', 'settings'))!
    const further = await node(demo.courses.old, 'Lab sheet 2')
    await demo
      .db('items')
      .where(old)
      .update({ points: '31', settings: json({ attempts: '9' }) })
    await demo
      .db('items')
      .where({ ...old, lineage: further.lineage })
      .update({ points: '32' })
    const again = await planned([demo.courses.old], shell)
    expect((await effectOf(demo.db, again)).effect.updated.things).toBe(1)
    await run(again)
    expect(await demo.db('items').where({ course_id: shell, lineage }).first()).toEqual(stands)
    expect((await node(shell, 'Lab sheet 2')).points).toBe(320_000)
    await demo
      .db('items')
      .where(old)
      .update({ points: was.points, settings: json(jsonOf(was.settings)) })
  })
  it('that a section shows has dates of the section’s own, changed there alone; all else is the content’s', async () => {
    const [one, two] = [await makeShell('01'), await makeShell('02')]
    const plan = await planned([demo.courses.old], one)
    await chooseSections(demo.db, who(), plan, [two])
    await run(plan)
    const { lineage, due } = await node(one, 'Lab sheet 1')
    const edit = await change(two, { [lineage]: { due: at('2027-01-14T12:00') } })
    expect([(await node(one, 'Lab sheet 1')).due, (await node(two, 'Lab sheet 1')).due]).toEqual([
      due,
      '2027-01-14T12:00',
    ])
    await expect(change(two, { [lineage]: { points: 10_000 } })).rejects.toMatchObject({
      code: 'edit-of-content',
    })
    await undoEdit(demo.db, who(), { id: two, edit })
    expect((await node(two, 'Lab sheet 1')).due).toBe(due)
    await change(one, { [lineage]: { points: 10_000 } })
    expect((await node(two, 'Lab sheet 1')).points).toBe(10_000)
  })
})

describe('bringing more', () => {
  it('offers what the source has and the shell has not, and begins with the last run’s decisions, never adding nothing', async () => {
    const shell = await makeShell()
    const source = await loadOutline(demo.db, demo.courses.old)
    const units = source.filter(({ type, depth }) => type === 'unit' && depth === 0)
    const late = present(units.at(-1))
    const inside = source.filter(({ unit }) => unit === late.lineage)
    const leave = [late.lineage, ...inside.map(({ lineage }) => lineage)]
    await run(
      await planned([demo.courses.old], shell, ({ carry, names }) => ({
        carry: { ...carry, leave, arrive: 'hidden' },
        names,
      })),
    )
    const more = await readMore(demo.db, who(), shell)
    expect(more).toMatchObject({ source: { id: demo.courses.old }, units: [{ lineage: late.lineage }] })
    const plan = await bringMore(demo.db, who(), shell, late.lineage)
    const { document, begunWith } = await readPlan(demo.db, who(), plan)
    expect([document.carry.arrive, begunWith?.how]).toEqual(['hidden', 'as-before'])
    expect((await effectOf(demo.db, plan)).effect.added).toMatchObject({ units: 1, items: inside.length })
    await run(plan)
    expect((await readMore(demo.db, who(), shell)).units).toEqual([])
    await expect(bringMore(demo.db, who(), shell, late.lineage)).rejects.toMatchObject({
      code: 'more-is-there',
    })
    expect(await readMore(demo.db, who(), demo.courses.empty)).toEqual({ source: null, units: [] })
  })
})
