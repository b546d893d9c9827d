import { randomUUID } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { madeThing, type MadeThing } from '../../core/carry/added'
import { questionsOf } from '../../core/formats/cartridge/qti/model'
import { readQuestions } from '../../core/formats/cartridge/qti/read'
import { readLimits } from '../../core/formats/limits'
import { readXml } from '../../core/formats/xml'
import { present } from '../../core/present'
import { loadFurniture } from '../../server/courses/around.queries'
import { loadBody } from '../../server/courses/bodies.queries'
import { loadOutline, loadSettings } from '../../server/courses/content.queries'
import { readItem } from '../../server/courses/item'
import { effectOf } from '../../server/runs/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { startAwaited } from '../../server/plans/start'
import { readRun } from '../../server/runs/runs'
import { search } from '../../server/search/search'
import { makeCourse } from '../../server/shells/shells'
import { useDemo } from '../support/demo'
import { useRolls, type Decide } from '../support/rolls'

const demo = useDemo('added')
const sorrel = () => demo.people.sorrel
const { planned, run, digest } = useRolls(demo, sorrel)
const course = async (source: string): Promise<string> =>
  (await demo.db('courses').where({ source_id: source }).first('id'))!.id
const bread = () => course('bkg115-01-2026a')
const birds = () => course('orn130-01-2026a')
const titled = <N extends { title: string }>(nodes: readonly N[], title: string): N =>
  present(nodes.find(node => node.title === title))
let made = 0
const newShell = async (): Promise<string> =>
  (
    await makeCourse(demo.db, sorrel(), {
      term: '2027-spring',
      code: 'BKG 199',
      section: String(++made).padStart(2, '0'),
      title: `Bread again ${made}`,
    })
  ).id
const thing = (given: Partial<MadeThing> & { title: string }): MadeThing =>
  madeThing.parse({ kind: null, ...given })
const effect = async (plan: string) => (await effectOf(demo.db, plan)).effect
/** A plan for the same sources and shell once more: nothing is to be written. */
async function proposesNothing(source: string, shell: string): Promise<void> {
  const again = await planned([source], shell)
  const found = await effectOf(demo.db, again)
  expect(found).toMatchObject({ writes: false, effect: { replaced: 0, added: { items: 0, units: 0 } } })
}

describe('what a plan adds of its own', () => {
  it('is written with its place, points, text and dates of the pattern, and is not added twice', async () => {
    const [old, shell] = [await bread(), await newShell()]
    const [week, essay, test] = [randomUUID(), randomUUID(), randomUUID()]
    const category = titled(
      (await readPlan(demo.db, sorrel(), await planned([old], shell))).source.categories,
      'Paper',
    )
    const decide: Decide = ({ added, places, grades, dates }) => ({
      added: {
        ...added,
        made: {
          [week]: thing({ title: 'Unit 4 – Looking back' }),
          [essay]: thing({
            title: 'What I would bake',
            kind: 'assignment',
            points: 150_000,
            text: 'One loaf.\n\nWhy <this> one?',
          }),
          [test]: thing({ title: 'Closing test', kind: 'quiz', exam: true }),
        },
      },
      places: { ...places, into: { [essay]: week, [test]: week }, after: { [test]: null } },
      grades: { ...grades, items: { [essay]: { category: category.lineage } } },
      dates: {
        ...dates,
        pattern: {
          firstWeek: 1,
          weeksPerUnit: 1,
          dates: { due: { weeksOn: 0, weekday: 5, time: '17:00' } },
          kinds: ['assignment'],
        },
      },
    })
    const plan = await planned([old], shell, decide)
    expect((await effect(plan)).ownAdded).toEqual({ made: 3, found: 0 })
    const done = await readRun(demo.db, sorrel(), await run(plan))
    expect(done.entries.find(entry => entry.title === 'Closing test')).toMatchObject({
      kind: 'quiz',
      action: 'added',
    })

    const nodes = await loadOutline(demo.db, shell)
    const unit = titled(nodes, 'Unit 4 – Looking back')
    expect(nodes.filter(node => node.parent === unit.lineage).map(node => node.title)).toEqual([
      'Closing test',
      'What I would bake',
    ])
    expect(titled(nodes, 'Closing test')).toMatchObject({ kind: 'quiz', exam: true, body: null, due: null })
    // Teaching week 4 of spring 2027 begins on Monday 25 January: its Friday is the 29th (docs/dates.md, case 1).
    expect(titled(nodes, 'What I would bake')).toMatchObject({
      points: 150_000,
      category: category.lineage,
      due: '2027-01-29T17:00',
    })
    const { html } = await readItem(demo.db, sorrel(), shell, essay)
    expect(html).toContain('<p>One loaf.</p>')
    expect(html).toContain('Why &lt;this&gt; one?')
    await proposesNothing(old, shell)
  })
  it('takes items of other courses, a quiz with three of its questions exactly as they were, and leaves its course untouched', async () => {
    const [old, other, shell] = [await bread(), await birds(), await newShell()]
    const theirs = await loadOutline(demo.db, other)
    const [quiz, file] = [titled(theirs, 'Check: routes'), titled(theirs, 'Telling five warblers apart.docx')]
    const unit = titled(await loadOutline(demo.db, old), 'Unit 3 – The oven')
    const by = sorrel().id
    const decide: Decide = ({ added, places }) => ({
      added: {
        ...added,
        found: {
          [quiz.lineage]: { course: other, lineage: quiz.lineage, by },
          [file.lineage]: { course: other, lineage: file.lineage, by },
        },
      },
      places: {
        ...places,
        into: { [quiz.lineage]: unit.lineage, [file.lineage]: unit.lineage },
        questions: { [quiz.lineage]: { body: present(quiz.body), takes: [0, 2, 4] } },
      },
    })
    const before = await digest(other)
    const plan = await planned([old], shell, decide)
    expect((await effect(plan)).ownAdded).toEqual({ made: 0, found: 2 })
    const done = await readRun(demo.db, sorrel(), await run(plan))
    expect(done.entries.find(entry => entry.title === 'Check: routes')?.text).toMatchObject({ questions: 3 })
    expect(await digest(other)).toBe(before)

    const nodes = await loadOutline(demo.db, shell)
    const came = titled(nodes, 'Check: routes')
    expect(came).toMatchObject({ parent: unit.lineage, points: quiz.points, release: [] })
    expect(titled(nodes, file.title)).toMatchObject({ body: file.body, parent: unit.lineage })
    const [whole, part] = [
      present(await loadBody(demo.db, present(quiz.body))),
      present(await loadBody(demo.db, present(came.body))),
    ]
    const questions = (bytes: Uint8Array) => [
      ...questionsOf(readQuestions('', readXml('', bytes, readLimits)).sections),
    ]
    expect(questions(part)).toEqual([0, 2, 4].map(at => questions(whole)[at]))
    // What is left is byte for byte what stood there.
    expect(
      part
        .toString()
        .split('\n')
        .every(line => whole.toString().includes(line)),
    ).toBe(true)
    // Another can be looked for by the words of what came.
    const { finds } = await search(demo.db, sorrel(), { q: 'warblers supercilium' })
    expect(finds.map(find => find.title)).toEqual([file.title])
    await proposesNothing(old, shell)
  })
  it('takes nothing from a course that the person may not roll from, whoever is said to have taken it', async () => {
    const [old, shell] = [await bread(), await newShell()]
    const secret = titled(await loadOutline(demo.db, demo.courses.old), 'Syllabus')
    const plan = await planned([old], shell)
    const { revision, document } = await readPlan(demo.db, sorrel(), plan)
    for (const by of [sorrel().id, demo.people.marchetti.id]) {
      const found = { [secret.lineage]: { course: demo.courses.old, lineage: secret.lineage, by } }
      await expect(
        savePlan(demo.db, sorrel(), plan, revision, {
          document: { ...document, added: { made: {}, found } },
        }),
      ).rejects.toMatchObject({ code: 'not-yours-to-take' })
    }
  })
})

describe('a course that is rolled in place', () => {
  it('has nothing added by its plan', async () => {
    const plan = await startAwaited(demo.db, sorrel(), {
      sources: [await bread()],
      term: '2027-spring',
      mode: 'in-place',
    })
    const { revision, document } = await readPlan(demo.db, sorrel(), plan)
    const made = { [randomUUID()]: thing({ title: 'One more week' }) }
    await expect(
      savePlan(demo.db, sorrel(), plan, revision, { document: { ...document, added: { made, found: {} } } }),
    ).rejects.toMatchObject({ code: 'in-place-adds' })
  })
})

describe('an item that comes as a frame or with other settings', () => {
  it('has its title, dates, points and category and no content; settings come exactly but for those given', async () => {
    const [old, shell] = [await bread(), await newShell()]
    const source = await loadOutline(demo.db, old)
    const [quiz, bake] = [titled(source, 'Check: flour'), titled(source, 'Bake 1: two hydrations')]
    const decide: Decide = ({ carry }) => ({
      carry: {
        ...carry,
        frames: { [bake.lineage]: true },
        frameKinds: { page: true },
        settings: { [quiz.lineage]: { attempts: '3' } },
      },
    })
    const plan = await planned([old], shell, decide)
    const frames =
      source.filter(node => node.kind === 'page' && node.body !== null && node.state !== 'deleted').length + 1
    expect((await effect(plan)).frames).toBe(frames)
    await run(plan)
    const nodes = await loadOutline(demo.db, shell)
    expect(titled(nodes, 'Bake 1: two hydrations')).toMatchObject({
      body: null,
      points: bake.points,
      category: bake.category,
    })
    expect(titled(nodes, 'Why crust browns')).toMatchObject({ body: null, kind: 'page' })
    const [was, is] = [await loadSettings(demo.db, old), await loadSettings(demo.db, shell)]
    expect(is.get(quiz.lineage)).toEqual({ ...was.get(quiz.lineage), attempts: '3' })
    expect(is.get(bake.lineage)).toEqual(was.get(bake.lineage))
    await proposesNothing(old, shell)
  })
})

describe('what stands around the units', () => {
  it('comes part by part: what one leaves stays behind, and what one takes replaces the shell’s own', async () => {
    const [old, other, shell] = [await bread(), await birds(), await newShell()]
    await run(await planned([other], shell))
    expect((await loadFurniture(demo.db, shell)).map(each => each.title)).toContain(
      'Weeks, Field notes, Trainer',
    )
    const furniture = await loadFurniture(demo.db, old)
    const decide: Decide = ({ carry }) => ({
      carry: {
        ...carry,
        furniture: {
          [titled(furniture, 'Home').lineage]: 'take',
          [titled(furniture, 'Petra Sorrel').lineage]: 'leave',
          [titled(furniture, 'Crust and Crumb, a workbook').lineage]: 'take',
        },
      },
    })
    await run(await planned([old], shell, decide))
    const there_ = await loadFurniture(demo.db, shell)
    expect(there_.filter(each => each.part === 'home').map(each => each.lineage)).toEqual([
      titled(furniture, 'Home').lineage,
    ])
    expect(there_.some(each => each.part === 'contact')).toBe(false)
    expect(there_.filter(each => each.part === 'material').length).toBe(3)
  })
})
