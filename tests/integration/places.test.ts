import { describe, expect, it } from 'vitest'
import { parseLineageLink } from '../../core/course/lineage'
import type { OutlineNode } from '../../core/course/outline'
import {
  loadCategories,
  loadFurniture,
  loadGradeRules,
  loadGroups,
  loadRubrics,
} from '../../server/courses/around.queries'
import { storeStreams } from '../../server/courses/bodies.queries'
import { loadCarrySide } from '../../server/courses/carry-side'
import { contentTables, loadOutline } from '../../server/courses/content.queries'
import { fixItem } from '../../server/courses/fixing'
import { loadLinks } from '../../server/courses/links.queries'
import { readItem } from '../../server/courses/item'
import { storageOf } from '../../server/courses/storage.queries'
import { effectOf } from '../../server/runs/effect'
import { readRun } from '../../server/runs/runs'
import { deleteTemplate, makeTemplate } from '../../server/sharing/templates'
import { makeCourse } from '../../server/shells/shells'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('places')
const sorrel = () => demo.people.sorrel
const course = async (source: string): Promise<string> =>
  (await demo.db('courses').where({ source_id: source }).first('id'))!.id
const weave = async () => ({ old: await course('wvg201-01-2026a'), shell: await course('wvg201-01-2027s') })
const titled = (nodes: readonly OutlineNode[], title: string): OutlineNode =>
  nodes.find(node => node.title === title)!
const { planned, run, digest } = useRolls(demo, () => sorrel())

describe('a shell with a template in it', () => {
  it('is filled place by place: what is fixed stays, what nothing fills goes, and the rest finds its units', async () => {
    const { old, shell } = await weave()
    const before = await loadOutline(demo.db, shell)
    const source = await digest(old)
    const { effect } = await effectOf(demo.db, await planned([old], shell))
    expect(effect).toMatchObject({
      added: { units: 1, items: 4, categories: 0 },
      filled: 6,
      replaced: 0,
      removed: { things: 0, places: 1 },
      settle: { places: 6 },
      grades: { sum: 1_000_000, changed: 1 },
    })
    const id = await run(await planned([old], shell))
    const after = await loadOutline(demo.db, shell)
    expect(after.filter(node => node.type === 'unit').map(node => node.title)).toEqual([
      'Start here',
      'Unit 1: Plain weave and its relatives',
      'Unit 2: Twills',
      'A cloth for a purpose',
    ])
    // The place keeps its key, so that whatever led to it leads to what fills it.
    const place = titled(before, 'First sample')
    expect(after.find(node => node.lineage === place.lineage)).toMatchObject({
      title: 'Sample 1: plain weave at three setts',
      kind: 'assignment',
      holds: null,
      state: 'visible',
      due: '2027-01-26T18:00',
    })
    expect(after.filter(node => node.holds !== null)).toEqual([])
    expect(titled(after, 'Safety at the loom')).toMatchObject({ fixed: true, madeBy: 'template' })
    expect(after.map(node => node.title)).not.toContain('A word from your teacher')
    const [samples] = await loadCategories(demo.db, shell)
    expect(samples).toMatchObject({ title: 'Samples', weight: 1_000_000 })
    const graded = after.filter(node => node.points !== null)
    expect(new Set(graded.map(node => node.category))).toEqual(new Set([samples!.lineage]))
    expect(await digest(old)).toBe(source)
    const record = await readRun(demo.db, sorrel(), id)
    expect(record.entries.find(each => each.action === 'cleared')).toMatchObject({
      title: 'A word from your teacher',
    })
    expect(record.entries.filter(each => each.action === 'filled')).toHaveLength(6)
    expect(record.entries.find(each => each.lineage === place.lineage)).toMatchObject({
      title: 'Sample 1: plain weave at three setts',
      was: 'First sample',
      category: 'Samples',
    })
  })
  it('opens what fills a place under the old course’s key too', async () => {
    const { old, shell } = await weave()
    const page = titled(await loadOutline(demo.db, old), 'Reading a draft')
    expect((await readItem(demo.db, sorrel(), shell, page.lineage)).title).toBe('Reading a draft')
  })
  it('is asked for nothing by a second run with nothing changed', async () => {
    const { old, shell } = await weave()
    const { effect } = await effectOf(demo.db, await planned([old], shell))
    expect(effect).toMatchObject({
      added: { units: 0, items: 0, categories: 0 },
      filled: 0,
      replaced: 0,
      updated: { things: 0 },
      removed: { things: 0, places: 0 },
      keptBoth: 0,
      already: 10,
      settle: { places: 0 },
      dates: { dates: 0 },
    })
    await expect(run(await planned([old], shell))).rejects.toThrow(/nothing/i)
  })
})

describe('a second run after edits on both sides', () => {
  const body = async (text: string): Promise<string> => {
    const bytes = new TextEncoder().encode(text)
    const chunks = async function* () {
      yield bytes
    }
    return (await storeStreams(demo.db, new Map([['x', { mediaType: 'text/html', chunks }]]))).get('x')!
  }
  it('brings what changed in the source, keeps what changed in the shell, and asks where both did', async () => {
    const { old, shell } = await weave()
    const source = await loadOutline(demo.db, old)
    const [sett, sample, angle] = [
      titled(source, 'How close the threads stand'),
      titled(source, 'Sample 2: basket and rib'),
      titled(source, 'Why a twill leans'),
    ]
    const there = async (title: string) => titled(await loadOutline(demo.db, shell), title).lineage
    const inShell = {
      sett: await there(sett.title),
      sample: await there(sample.title),
      angle: await there(angle.title),
    }
    const edit = (courseId: string, lineage: string, change: object) =>
      demo.db('items').where({ course_id: courseId, lineage }).update(change)
    await edit(old, sample.lineage, { points: '25', title: 'Sample 2: basket, rib and hopsack' })
    await edit(shell, inShell.sett, { title: 'Sett, as I teach it' })
    await edit(old, angle.lineage, { body_hash: await body('<p>The line, from the source.</p>') })
    await edit(shell, inShell.angle, { body_hash: await body('<p>The line, from the shell.</p>') })

    const { effect } = await effectOf(demo.db, await planned([old], shell))
    expect(effect).toMatchObject({
      added: { items: 0 },
      replaced: 0,
      updated: { things: 1, parts: { title: 1, points: 1 } },
      settle: { places: 1 },
    })
    await run(await planned([old], shell))
    const after = await loadOutline(demo.db, shell)
    const at = (lineage: string) => after.find(node => node.lineage === lineage)
    expect(at(inShell.sample)).toMatchObject({ title: 'Sample 2: basket, rib and hopsack', points: 250_000 })
    expect(at(inShell.sett)?.title).toBe('Sett, as I teach it')
    // What is to settle stays the shell's until one chooses, and is not asked again until the source changes.
    expect((await readItem(demo.db, sorrel(), shell, inShell.angle)).html).toContain('from the shell')
    const again = await effectOf(demo.db, await planned([old], shell))
    expect(again.effect).toMatchObject({ updated: { things: 0 }, settle: { places: 0 } })
    await edit(old, angle.lineage, { body_hash: await body('<p>The line, from the source, again.</p>') })
    const asked = await planned([old], shell, ({ places }) => ({
      places: { ...places, parts: { [angle.lineage]: { text: 'source' } } },
    }))
    await run(asked)
    expect((await readItem(demo.db, sorrel(), shell, inShell.angle)).html).toContain('from the source, again')
  })
  it('never overwrites what the office fixed, and says who fixed it', async () => {
    const { old, shell } = await weave()
    const source = titled(await loadOutline(demo.db, old), 'Sample 4: a twill of your own')
    await fixItem(demo.db, demo.people.ellwood, shell, source.lineage, true)
    await demo
      .db('items')
      .where({ course_id: old, lineage: source.lineage })
      .update({ title: 'Sample 4: changed' })
    const { effect } = await effectOf(demo.db, await planned([old], shell))
    expect(effect).toMatchObject({ replaced: 0, settle: { places: 0 } })
    const [entry] = await demo.db('log').where({ action: 'item.fixed' })
    expect(entry?.person_id).toBe(demo.people.ellwood.id)
  })
})

describe('how a course grades, and what stands around its units', () => {
  it('comes with what is carried: rubrics, groups, releases, rules, furniture; announcements stay behind', async () => {
    const old = await course('bkg115-01-2026a')
    const { id: shell } = await makeCourse(demo.db, sorrel(), {
      code: 'BKG 915',
      section: '01',
      title: 'Bread again',
      term: '2027-spring',
    })
    await run(await planned([old], shell))
    const after = await loadOutline(demo.db, shell)
    const bake = titled(after, 'Bake 4: your own')
    expect(bake.release).toEqual([
      { after: titled(after, 'Bake 3: steam').lineage, needs: 'handed-in', least: null },
    ])
    const [loaf] = await loadRubrics(demo.db, shell)
    expect([bake.rubric, loaf?.criteria[0]?.levels[0]]).toEqual([
      loaf?.lineage,
      { title: 'open and even', points: 100_000 },
    ])
    expect((await loadGroups(demo.db, shell)).map(group => group.title)).toEqual(['Evening group'])
    expect(await loadGradeRules(demo.db, shell)).toMatchObject({
      by: 'weights',
      ungraded: 'zero',
      decimals: 1,
    })
    expect((await loadCategories(demo.db, shell))[0]).toMatchObject({
      dropLowest: 1,
      within: 'equal',
      weight: 500_000,
    })
    expect((await loadFurniture(demo.db, shell)).map(({ part, title }) => `${part} ${title}`)).toContain(
      'material Crust and Crumb, a workbook',
    )
    const item = await readItem(demo.db, sorrel(), shell, bake.lineage)
    expect(item).toMatchObject({ rubric: { title: 'A loaf' }, release: [{ title: 'Bake 3: steam' }] })
  })
  it('is mended in the plan: weights of 95 made 100, an item in another category, all of it written and told', async () => {
    const [old, shell] = [await course('orn130-01-2026a'), await course('orn130-01-2027s')]
    const [notes, trainer, count, checks] = await loadCategories(demo.db, old)
    const quiz = titled(await loadOutline(demo.db, old), 'Check: routes')
    const before = await effectOf(demo.db, await planned([old], shell))
    expect(before.effect.grades).toMatchObject({ sum: 950_000 })
    const plan = await planned([old], shell, ({ grades }) => ({
      grades: {
        ...grades,
        categories: { [notes!.lineage]: { weight: 350_000 } },
        items: { [quiz.lineage]: { category: count!.lineage } },
        order: [checks!.lineage, notes!.lineage],
      },
    }))
    const { effect } = await effectOf(demo.db, plan)
    expect(effect).toMatchObject({ grades: { sum: 1_000_000 }, settle: { categories: 0 } })
    await run(plan)
    expect((await loadCategories(demo.db, shell)).map(line => `${line.title} ${line.weight}`)).toEqual([
      'Checks 200000',
      'Field notes 350000',
      `Plumage trainer ${trainer!.weight}`,
      `The autumn count ${count!.weight}`,
    ])
    const after = await loadOutline(demo.db, shell)
    expect(titled(after, 'Check: routes').category).toBe(count!.lineage)
    expect(after.map(node => node.title)).not.toContain('No tutorial this Friday')
    // What was decided against the source is not asked again while the source is as it was.
    const again = await effectOf(demo.db, await planned([old], shell))
    expect(again).toMatchObject({
      writes: false,
      effect: { grades: { sum: 1_000_000 }, settle: { grades: 0 }, replaced: 0 },
    })
  })
})

it('of what stands around the items, that is told which the items use that are given', async () => {
  const id = await course('bkg115-01-2026a')
  const [all, given] = [
    await loadCarrySide(demo.db, id),
    await loadCarrySide(demo.db, id, new Set(['page', 'assignment'])),
  ]
  expect(all.furniture.filter(each => each.item !== null)).not.toEqual([])
  expect(given.furniture.filter(each => each.item !== null)).toEqual([])
  expect(all.rubrics).not.toEqual([])
  expect(given.rubrics).toEqual([])
})
describe('a template', () => {
  it('takes along how its course grades, and is deleted with all of it', async () => {
    const old = await course('bkg115-01-2026a')
    const { id } = await makeTemplate(demo.db, sorrel(), old, {
      title: 'Bread, for whoever bakes',
      subject: 'Baking',
      arrangement: 'units',
      about: 'Three units.',
    })
    expect(await loadGradeRules(demo.db, id)).toEqual(await loadGradeRules(demo.db, old))
    expect((await loadRubrics(demo.db, id)).length).toBe(1)
    await deleteTemplate(demo.db, sorrel(), id)
    for (const table of contentTables as readonly 'items'[])
      expect(await demo.db(table).where({ course_id: id }), table).toEqual([])
  })
})

describe('storage', () => {
  it('stays flat: ten rolls add rows and no bodies; each link of a shell leads somewhere in it, or is left behind', async () => {
    const old = await course('bkg115-02-2026a')
    const bodies = async () => Number((await demo.db('bodies').count({ count: '*' }).first())?.count)
    const before = await bodies()
    const shells: string[] = []
    for (let at = 0; at < 10; at++) {
      const made = await makeCourse(demo.db, sorrel(), {
        code: `BKG ${800 + at}`,
        section: '01',
        title: `Bread ${at}`,
        term: '2027-spring',
      })
      shells.push(made.id)
      await run(await planned([old], made.id))
    }
    expect(await bodies()).toBe(before)
    const [one, ten] = [await storageOf(demo.db, [old]), await storageOf(demo.db, shells)]
    expect([ten.bodies, ten.own]).toEqual([one.bodies, 0])
    const outline = await loadOutline(demo.db, shells[0]!)
    const here = new Set(outline.map(node => node.lineage))
    const links = await loadLinks(demo.db, [shells[0]!])
    expect(links.length).toBeGreaterThan(0)
    for (const { to } of links) expect(here).toContain(to)
    const page = titled(outline, 'What gluten does')
    const { html } = await readItem(demo.db, sorrel(), shells[0]!, page.lineage)
    const addresses = [...(html ?? '').matchAll(/href="([^"]+)"/g)].map(match => match[1] ?? '')
    expect(addresses.filter(address => parseLineageLink(address))).toEqual([])
    expect(addresses.some(address => address.startsWith(`/courses/${shells[0]}/items/`))).toBe(true)
  })
})
