import { describe, expect, it } from 'vitest'
import { present } from '../../core/present'
import { loadOutline } from '../../server/courses/content.queries'
import { contentOf } from '../../server/courses/sections.queries'
import { editCourse } from '../../server/editing/edits'
import { effectOf } from '../../server/runs/effect'
import { dropOldStates } from '../../server/runs/states.queries'
import { readUndo, undoRun } from '../../server/runs/undo'
import { readPlan } from '../../server/plans/plans'
import { chooseSections } from '../../server/plans/sections'
import { linkSection, readSections, unlinkSection } from '../../server/sections/linking'
import { makeCourse } from '../../server/shells/shells'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('sections')
const who = () => demo.people.marchetti
const { planned, run, digest, handIn } = useRolls(demo, who)
let made = 0
/** Two shells of one course; the first meets on Mondays, the second on Thursdays. */
async function pair(): Promise<[string, string]> {
  made++
  const make = async (section: string, weekday: 1 | 4): Promise<string> => {
    const names = { term: '2027-spring', code: `SEC ${made}00`, section, title: `Sections ${made}` }
    const { id } = await makeCourse(demo.db, who(), names)
    await demo.db('meetings').insert({ course_id: id, position: 0, weekday, start: '10:00', end: '11:00' })
    return id
  }
  return [await make('01', 1), await make('02', 4)]
}
async function turn(runId: string): Promise<void> {
  const { fingerprint } = await readUndo(demo.db, who(), runId)
  await undoRun(demo.db, who(), runId, { fingerprint, keepAside: true })
}
const could = async (content: string, section: string) =>
  (await readSections(demo.db, who(), content)).could.find(({ course }) => course.id === section)
const link = async (contentId: string, sectionId: string): Promise<void> => {
  const leaves = present(await could(contentId, sectionId)).leaves
  await linkSection(demo.db, who(), { contentId, sectionId, agreed: leaves.map(({ lineage }) => lineage) })
}
const dated = async (course: string) =>
  (await loadOutline(demo.db, course)).map(({ lineage, title, opens, due, closes }) => [
    lineage,
    title,
    opens,
    due,
    closes,
  ])

describe('a section that holds what a run from the same source brought', () => {
  it('can be joined by a run: what goes is listed first, and undoing puts it back', async () => {
    const [one, two] = await pair()
    await run(await planned([demo.courses.old], two))
    const before = await digest(two)
    const plan = await planned([demo.courses.old], one)
    const asked = present(
      (await readPlan(demo.db, who(), plan)).sections.find(each => each.course.id === two),
    )
    expect(asked.faults).toEqual([])
    const held = await loadOutline(demo.db, two)
    expect(asked.leaves.map(({ lineage }) => lineage)).toEqual(held.map(({ lineage }) => lineage))
    await chooseSections(demo.db, who(), plan, [two])
    expect((await effectOf(demo.db, plan)).sections[0]?.leaves).toEqual(asked.leaves)
    const id = await run(plan)
    expect(await contentOf(demo.db, two)).toBe(one)
    expect(await demo.db('items').where({ course_id: two })).toEqual([])
    const after = [await digest(one), await digest(two)]
    await turn(id)
    expect(await digest(two)).toBe(before)
    await turn(id)
    expect([await digest(one), await digest(two)]).toEqual(after)
  })
  it('cannot once somebody changed or added something there, or students worked', async () => {
    const [one, two] = await pair()
    await run(await planned([demo.courses.old], one))
    await run(await planned([demo.courses.old], two))
    expect((await could(one, two))?.faults).toEqual([])
    const [first] = await loadOutline(demo.db, two)
    await editCourse(demo.db, who(), two, { does: 'rename', titles: { [present(first).lineage]: 'Mine' } })
    expect((await could(one, two))?.faults).toEqual(['it holds content of its own (“Mine”)'])
    const asked = present(await could(one, two)).leaves.map(({ lineage }) => lineage)
    await expect(
      linkSection(demo.db, who(), { contentId: one, sectionId: two, agreed: asked }),
    ).rejects.toMatchObject({ code: 'cannot-join' })
    const [three, four] = await pair()
    await run(await planned([demo.courses.old], three))
    await run(await planned([demo.courses.old], four))
    await handIn(
      four,
      present((await loadOutline(demo.db, four)).find(({ type }) => type === 'item')).lineage,
    )
    expect((await could(three, four))?.faults).toEqual([
      expect.stringMatching(/^students have worked there \(\d+ records?\)$/),
    ])
  })
  it('cannot where it came from another source', async () => {
    const [one, two] = await pair()
    await run(await planned([demo.courses.old], one))
    await run(await planned([demo.courses.template], two))
    expect((await could(one, two))?.faults).toEqual([expect.stringContaining('content of its own')])
  })
})

describe('a section that holds an untouched template', () => {
  it('can share another’s content, until a person touches it', async () => {
    const { empty, template } = demo.courses
    await run(await planned([demo.courses.old], empty))
    const held = await loadOutline(demo.db, template)
    const found = present(await could(empty, template))
    expect(found).toMatchObject({ faults: [], leaves: { length: held.length } })
    await editCourse(demo.db, who(), template, {
      does: 'rename',
      titles: { [present(held[0]).lineage]: 'Mine' },
    })
    expect((await could(empty, template))?.faults).toEqual(['it holds content of its own (“Mine”)'])
  })
})

describe('linking two filled sections', () => {
  it('keeps the dates that each has; unlinking gives each a content of its own with them', async () => {
    const [one, two] = await pair()
    const meetings = (document: Parameters<NonNullable<Parameters<typeof planned>[2]>>[0]) => ({
      dates: { ...document.dates, rule: { ...document.dates.rule, method: 'meetings' } as never },
    })
    await run(await planned([demo.courses.old], one, meetings))
    await run(await planned([demo.courses.old], two, meetings))
    const [ofOne, ofTwo] = [await dated(one), await dated(two)]
    expect(ofOne).not.toEqual(ofTwo)
    // What one has seen is what goes: a list that is short by one is refused.
    const leaves = present(await could(one, two)).leaves.map(({ lineage }) => lineage)
    await expect(
      linkSection(demo.db, who(), { contentId: one, sectionId: two, agreed: leaves.slice(1) }),
    ).rejects.toMatchObject({ code: 'section-changed' })
    await link(one, two)
    expect(await contentOf(demo.db, two)).toBe(one)
    expect([await dated(one), await dated(two)]).toEqual([ofOne, ofTwo])
    const [first] = await loadOutline(demo.db, one)
    await editCourse(demo.db, who(), one, { does: 'rename', titles: { [present(first).lineage]: 'Both' } })
    expect((await loadOutline(demo.db, two))[0]?.title).toBe('Both')

    await unlinkSection(demo.db, who(), { contentId: one, sectionId: two })
    expect(await contentOf(demo.db, two)).toBe(two)
    expect((await dated(two)).slice(1)).toEqual(ofTwo.slice(1))
    expect(await dated(one)).toHaveLength((await dated(two)).length)
    // Its dates are its own, and stay with it: they do not keep it from being linked again.
    expect((await could(one, two))?.faults).toEqual(['it holds content of its own (“Both”)'])
    await editCourse(demo.db, who(), one, {
      does: 'rename',
      titles: { [present(first).lineage]: present(first).title },
    })
    await editCourse(demo.db, who(), two, {
      does: 'rename',
      titles: { [present(first).lineage]: present(first).title },
    })
    await link(one, two)
    expect(await dated(two)).toEqual(ofTwo)
    await unlinkSection(demo.db, who(), { contentId: one, sectionId: two })
    await editCourse(demo.db, who(), two, { does: 'rename', titles: { [present(first).lineage]: 'Mine' } })
    expect((await loadOutline(demo.db, one))[0]?.title).toBe(present(first).title)
    expect(await demo.db('section_dates').where({ course_id: two })).toEqual([])
  })
  it('is for whoever may run into both, once', async () => {
    const [one, two] = await pair()
    await run(await planned([demo.courses.old], one))
    await expect(
      linkSection(demo.db, demo.people.okonjo, { contentId: one, sectionId: two, agreed: [] }),
    ).rejects.toMatchObject({ status: 404 })
    await Promise.all([link(one, two), link(one, two)])
    expect(await demo.db('joined_sections').where({ course_id: two })).toHaveLength(1)
    expect((await readSections(demo.db, who(), two)).shown).toMatchObject([{ course: { id: two } }])
    await expect(
      unlinkSection(demo.db, demo.people.okonjo, { contentId: one, sectionId: two }),
    ).rejects.toMatchObject({ status: 404 })
  })
})

describe('undoing a run beside sections', () => {
  it('leaves a section alone that was unlinked since', async () => {
    const [one, two] = await pair()
    const plan = await planned([demo.courses.old], one)
    await chooseSections(demo.db, who(), plan, [two])
    const id = await run(plan)
    await unlinkSection(demo.db, who(), { contentId: one, sectionId: two })
    const own = await digest(two)
    await turn(id)
    expect(await loadOutline(demo.db, one)).toEqual([])
    expect(await digest(two)).toBe(own)
  })
  it('tells of one that was linked since, and putting back gives it its dates again', async () => {
    const [one, two] = await pair()
    const id = await run(await planned([demo.courses.old], one))
    await link(one, two)
    const stood = await digest(two)
    expect((await readUndo(demo.db, who(), id)).sections).toEqual([expect.stringMatching(/-02$/)])
    await turn(id)
    expect(await loadOutline(demo.db, two)).toEqual([])
    await turn(id)
    expect(await digest(two)).toBe(stood)
  })
  it('is refused of a section’s own run while it is linked, and put back over nothing that came since', async () => {
    const [one, two] = await pair()
    const own = await run(await planned([demo.courses.old], two))
    const plan = await planned([demo.courses.old], one)
    await chooseSections(demo.db, who(), plan, [two])
    const id = await run(plan)
    await expect(turn(own)).rejects.toMatchObject({ code: 'undo-linked' })
    await turn(id)
    await run(await planned([demo.courses.template], two))
    await expect(turn(id)).rejects.toMatchObject({ code: 'undo-section-used' })
  })
  it('keeps a copy of what a section held only as long as it can be undone', async () => {
    const [one, two] = await pair()
    await run(await planned([demo.courses.old], two))
    const plan = await planned([demo.courses.old], one)
    await chooseSections(demo.db, who(), plan, [two])
    const copies = () => demo.db('courses').where('source_id', 'like', 'kept:%')
    const before = (await copies()).length
    await run(plan)
    expect(await copies()).toHaveLength(before + 1)
    await demo.db('kept_states').where({ course_id: one }).update({ kept_at: '2026-01-01' })
    await dropOldStates(demo.db, 30)
    expect(await copies()).toHaveLength(before)
  })
})
