import { describe, expect, it } from 'vitest'
import { madeThing } from '../../core/carry/added'
import { present } from '../../core/present'
import { loadCategories } from '../../server/courses/around.queries'
import { loadOutline } from '../../server/courses/content.queries'
import { editCourse, readEdits, undoEdit } from '../../server/editing/edits'
import { search } from '../../server/search/search'
import { readShares } from '../../server/sharing/shares'
import { deleteTemplate, makeTemplate, readTemplates } from '../../server/sharing/templates'
import { bringVersionBack, makeVersion, readVersions } from '../../server/sharing/versions'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('shelf')
const brandt = () => demo.people.brandt
const ellwood = () => demo.people.ellwood
const marchetti = () => demo.people.marchetti
const { planned, run, digest } = useRolls(demo, marchetti)
const titles = async (course: string): Promise<string[]> =>
  (await loadOutline(demo.db, course)).map(node => node.title)
const titled = async (course: string, title: string) =>
  present((await loadOutline(demo.db, course)).find(node => node.title === title))
const firstUnit = async (course: string) =>
  present((await loadOutline(demo.db, course)).find(node => node.type === 'unit'))

describe('a course changed in place', () => {
  it('is renamed, moved and added to, and each change is taken back by itself until it is as it was', async () => {
    const course = demo.courses.template
    const before = await digest(course)
    const nodes = await loadOutline(demo.db, course)
    const unit = await firstUnit(course)
    const items = nodes.filter(node => node.parent === unit.lineage)
    const [first, second] = [present(items[0]), present(items[1])]
    await editCourse(demo.db, ellwood(), course, {
      does: 'rename',
      titles: { [first.lineage]: 'Read this first' },
    })
    await editCourse(demo.db, ellwood(), course, {
      does: 'move',
      lineage: first.lineage,
      parent: unit.lineage,
      after: second.lineage,
    })
    const { lineage } = await editCourse(demo.db, ellwood(), course, {
      does: 'add',
      thing: madeThing.parse({
        kind: 'discussion',
        title: 'What did you see?',
        text: 'One tide, one place.',
        points: 50_000,
      }),
      parent: unit.lineage,
      category: null,
      opens: null,
      due: null,
    })
    const after = (await loadOutline(demo.db, course)).filter(node => node.parent === unit.lineage)
    expect(after.map(node => node.title).slice(0, 2)).toEqual([second.title, 'Read this first'])
    expect(after.at(-1)).toMatchObject({ lineage, title: 'What did you see?', points: 50_000, isHtml: true })
    expect(
      (await search(demo.db, ellwood(), { q: 'one tide place' })).finds.map(find => find.title),
    ).toContain('What did you see?')
    const { edits } = await readEdits(demo.db, course)
    expect(edits.map(edit => edit.words)).toEqual([
      'added the discussion “What did you see?”',
      `moved “Read this first” in “${unit.title}”`,
      `renamed “${first.title}” to “Read this first”`,
    ])
    // Each by itself, in whatever order.
    for (const at of [1, 0, 2])
      await undoEdit(demo.db, ellwood(), { id: course, edit: present(edits[at]).id })
    expect(await digest(course)).toBe(before)
  })
  it('is not changed by whoever may only read it, nor where the institution fixed something', async () => {
    const course = demo.courses.template
    const unit = await firstUnit(course)
    const edit = { does: 'rename', titles: { [unit.lineage]: 'Mine' } } as const
    await expect(editCourse(demo.db, demo.people.sorrel, course, edit)).rejects.toMatchObject({
      code: 'may-not-edit',
    })
    const shell = (await demo.db('courses').where({ source_id: 'wvg201-01-2027s' }).first('id'))!.id
    const safety = await titled(shell, 'Safety at the loom')
    await expect(
      editCourse(demo.db, demo.people.sorrel, shell, {
        does: 'rename',
        titles: { [safety.lineage]: 'Rules' },
      }),
    ).rejects.toMatchObject({ code: 'edit-refused' })
  })
})

describe('the shelf', () => {
  it('keeps one unit without its students, in versions, improved by a colleague, and gives it to any term', async () => {
    const old = demo.courses.old
    const unit = await firstUnit(old)
    const { departments } = await readShares(demo.db, marchetti(), old)
    const facts = { title: 'A first unit of tides', subject: 'Hydrography', arrangement: 'units' } as const
    const { id } = await makeTemplate(demo.db, marchetti(), old, {
      ...facts,
      unit: unit.lineage,
      org: present(departments[0]).id,
      colleagues: true,
    })
    const kept = await titles(id)
    expect(kept[0]).toBe(unit.title)
    const inOld = await loadOutline(demo.db, old)
    expect(kept.length).toBe(
      inOld.filter(node => node.unit === unit.lineage || node.lineage === unit.lineage).length,
    )
    const used = new Set((await loadOutline(demo.db, id)).map(node => node.category))
    expect((await loadCategories(demo.db, id)).every(category => used.has(category.lineage))).toBe(true)

    // A colleague of the department improves it there; the version before is kept.
    const line = present(
      (await readTemplates(demo.db, demo.people.okonjo)).templates.find(each => each.course.id === id),
    )
    expect(line).toMatchObject({ own: false, mayChange: false, mayImprove: true, version: 1 })
    await makeVersion(demo.db, demo.people.okonjo, id, { note: 'a clearer name', from: null, unit: null })
    await editCourse(demo.db, demo.people.okonjo, id, {
      does: 'rename',
      titles: { [unit.lineage]: 'Tides, gently' },
    })
    expect((await titles(id))[0]).toBe('Tides, gently')

    // It comes into another term as a source like any other.
    const plan = await planned([id], demo.courses.empty)
    await run(plan)
    expect(await titles(demo.courses.empty)).toContain('Tides, gently')

    // A newer one is taken from the course, and the first brought back: nothing is lost.
    const second = present(
      (await loadOutline(demo.db, old)).filter(node => node.type === 'unit' && node.depth === 0)[1],
    )
    await makeVersion(demo.db, marchetti(), id, { note: 'the second unit', from: old, unit: second.lineage })
    expect((await titles(id))[0]).toBe(second.title)
    await bringVersionBack(demo.db, marchetti(), id, 1)
    expect(await titles(id)).toEqual(kept)
    const { versions } = await readVersions(demo.db, id)
    expect(versions.map(({ number, note }) => [number, note])).toEqual([
      [3, 'the second unit'],
      [2, 'a clearer name'],
      [1, ''],
    ])
    // Versions are nobody's to roll from or to find.
    const found = await search(demo.db, marchetti(), { q: 'tides gently' })
    expect(found.finds.flatMap(find => find.places).every(place => place.course.origin !== 'version')).toBe(
      true,
    )
    await deleteTemplate(demo.db, marchetti(), id)
    expect(await demo.db('courses').where({ origin: 'version' }).pluck('id')).toEqual([])
  })
  it('is not improved by whoever may only take from it', async () => {
    const { id } = await makeTemplate(demo.db, brandt(), demo.courses.template, {
      title: 'Only to take',
      subject: 'Hydrography',
      arrangement: 'weeks',
      org: present((await readShares(demo.db, brandt(), demo.courses.template)).departments[0]).id,
    })
    await expect(
      makeVersion(demo.db, demo.people.okonjo, id, { note: 'mine', from: null, unit: null }),
    ).rejects.toMatchObject({ code: 'may-not-improve' })
  })
})
