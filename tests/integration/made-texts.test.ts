import { describe, expect, it } from 'vitest'
import { loadRubrics } from '../../server/courses/around.queries'
import { loadOutline } from '../../server/courses/content.queries'
import { readItem } from '../../server/courses/item'
import { json } from '../../server/db/rows'
import { effectOf } from '../../server/runs/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { readPlanText } from '../../server/runs/texts'
import { readRun, runPlan } from '../../server/runs/runs'
import { makeCourse } from '../../server/shells/shells'
import { useDemo } from '../support/demo'
import { editText } from '../support/edits'
import { useRolls, type Decide } from '../support/rolls'

const demo = useDemo('made_texts')
const sorrel = () => demo.people.sorrel
const { planned, run, digest } = useRolls(demo, sorrel)
const course = async (source: string): Promise<string> =>
  (await demo.db('courses').where({ source_id: source }).first('id'))!.id
const weaveBefore = () => course('wvg201-01-2026a')
const titled = <N extends { title: string }>(nodes: readonly N[], title: string): N =>
  nodes.find(node => node.title === title)!
const newShell = async (section: string): Promise<string> =>
  (
    await makeCourse(demo.db, sorrel(), {
      term: '2027-spring',
      code: 'WVG 299',
      section,
      title: `Weaving again ${section}`,
    })
  ).id

describe('a text that a run puts together', () => {
  const textOf = async (shell: string, title: string): Promise<string> => {
    const found = titled(await loadOutline(demo.db, shell), title)
    return (await readItem(demo.db, sorrel(), shell, found.lineage)).html ?? ''
  }
  it('is what stands under one heading, with further texts below it; the next run proposes nothing until the source changes', async () => {
    const [old, shell] = [await weaveBefore(), await course('wvg201-01-2027s')]
    const source = await loadOutline(demo.db, old)
    const [sett, purpose] = [titled(source, 'How close the threads stand'), titled(source, 'What is it for?')]
    const decide: Decide = ({ places }) => ({
      places: {
        ...places,
        headings: { [sett.lineage]: { title: 'A first square', nth: 0 } },
        further: { [sett.lineage]: [purpose.lineage] },
      },
    })
    const plan = await planned([old], shell, decide)
    const { headings, compared } = await readPlanText(demo.db, sorrel(), { id: plan, lineage: sett.lineage })
    expect(headings.map(each => each.title)).toEqual([
      'How close the threads stand',
      'Counting',
      'A first square',
      'The notebook',
    ])
    expect(compared).toBeNull()
    const before = await digest(old)
    expect((await effectOf(demo.db, plan)).effect.texts).toEqual({ made: 1, joined: 1 })
    const done = await readRun(demo.db, sorrel(), await run(plan))
    expect(done.entries.find(each => each.title === 'A first square')?.text).toMatchObject({
      heading: 'A first square',
      further: ['What is it for?'],
      passages: null,
    })
    expect(await digest(old)).toBe(before)
    const html = await textOf(shell, 'A first square')
    expect(html).toContain('Weave a hand')
    expect(html).not.toContain('Wind the yarn')
    expect(html).not.toContain('Write down')
    expect(html).toContain('<h2>What is it for?</h2>')
    expect(html).toContain('whom the cloth is for')
    expect((await loadOutline(demo.db, shell)).map(node => node.title)).not.toContain('What is it for?')
    // What is written in the old course of either leads to the place.
    const place = titled(await loadOutline(demo.db, shell), 'A first square')
    for (const { lineage } of [sett, purpose])
      expect((await readItem(demo.db, sorrel(), shell, lineage)).lineage).toBe(place.lineage)

    expect((await effectOf(demo.db, await planned([old], shell))).writes).toBe(false)
    await editText(demo.db, old, 'What is it for?', text => text.replace('Say whom', 'Say plainly whom'))
    const again = await planned([old], shell)
    expect((await effectOf(demo.db, again)).effect.updated.things).toBe(1)
    await run(again)
    expect(await textOf(shell, 'A first square')).toContain('Say plainly whom')
  })
  it('is refused by name where its heading is gone, and nothing is written', async () => {
    const [old, shell] = [await weaveBefore(), await newShell('02')]
    const sett = titled(await loadOutline(demo.db, old), 'How close the threads stand')
    const plan = await planned([old], shell, ({ places }) => ({
      places: { ...places, headings: { [sett.lineage]: { title: 'The third square', nth: 0 } } },
    }))
    const before = await digest(shell)
    await expect(effectOf(demo.db, plan)).rejects.toMatchObject({
      code: 'heading-gone',
      details: { title: 'How close the threads stand', heading: 'The third square' },
    })
    await expect(runPlan(demo.db, sorrel(), plan, 'any')).rejects.toThrow()
    expect(await digest(shell)).toBe(before)
  })
  it('is refused by name where it is too long to be taken apart while others wait', async () => {
    const [old, shell] = [await weaveBefore(), await newShell('06')]
    await editText(demo.db, old, 'Why a twill leans', html =>
      html.replace('</body>', `<h2>Long</h2><p>${'threads '.repeat(40_000)}</p></body>`),
    )
    const page = titled(await loadOutline(demo.db, old), 'Why a twill leans')
    const plan = await planned([old], shell, ({ places }) => ({
      places: { ...places, headings: { [page.lineage]: { title: 'Long', nth: 0 } } },
    }))
    await expect(effectOf(demo.db, plan)).rejects.toMatchObject({ code: 'text-too-long' })
  })
  it('is put together passage by passage where both sides changed, and is not asked again', async () => {
    const [old, shell] = [await course('orn130-01-2026a'), await course('orn130-01-2027s')]
    await run(await planned([old], shell))
    await editText(demo.db, old, 'Routes and weather', html =>
      html
        .replace('</h1>', '</h1><p>Take the early ferry.</p>')
        .replace('</body>', '<p>Mind the gate.</p></body>'),
    )
    await editText(demo.db, shell, 'Routes and weather', html =>
      html.replace('</body>', '<p>I am there at six.</p></body>'),
    )
    const plan = await planned([old], shell)
    const { lineage } = titled(await loadOutline(demo.db, old), 'Routes and weather')
    const { compared } = await readPlanText(demo.db, sorrel(), { id: plan, lineage })
    const differing = compared!.passages.filter(each => !each.isAlike)
    expect(differing.map(({ changed, source, shell: here }) => [changed, ...source, ...here])).toEqual([
      ['source', 'Take the early ferry.'],
      ['both', 'Mind the gate.', 'I am there at six.'],
    ])
    const passages = { source: compared!.source, shell: compared!.shell, takes: [0], both: [1] }
    const { revision, document } = await readPlan(demo.db, sorrel(), plan)
    await savePlan(demo.db, sorrel(), plan, revision, {
      document: { ...document, places: { ...document.places, passages: { [lineage]: passages } } },
    })
    await run(plan)
    const html = await textOf(shell, 'Routes and weather')
    const order = ['Take the early ferry.', 'Birds fly', 'I am there at six.', 'Mind the gate.']
    expect(order.map(words => html.indexOf(words))).toEqual(
      order.map(words => html.indexOf(words)).sort((a, b) => a - b),
    )
    expect(html).toContain('Take the early ferry.')
    const next = await effectOf(demo.db, await planned([old], shell))
    expect([next.writes, next.effect.settle.places]).toEqual([false, 0])
    // A choice of passages holds for the two texts that it was made of.
    await editText(demo.db, old, 'Routes and weather', text =>
      text.replace('Mind the gate.', 'Mind the dog.'),
    )
    const later = await planned([old], shell, ({ places }) => ({
      places: { ...places, passages: { [lineage]: passages } },
    }))
    expect((await effectOf(demo.db, later)).effect.settle.places).toBe(1)
  })
  it('is shown to nobody who may not read the source', async () => {
    const [old, shell] = [await weaveBefore(), await newShell('03')]
    const plan = await planned([old], shell)
    const { lineage } = titled(await loadOutline(demo.db, old), 'Reading a draft')
    await expect(readPlanText(demo.db, demo.people.marchetti, { id: plan, lineage })).rejects.toThrow(
      'This text is not here',
    )
  })
})

it('a place of another kind keeps its kind; points, rubric and text come into it, its settings do not', async () => {
  const [old, shell] = [await course('bkg115-01-2026a'), await newShell('04')]
  await run(await planned([await weaveBefore()], shell))
  const page = titled(await loadOutline(demo.db, shell), 'Reading a draft')
  await demo
    .db('items')
    .where({ course_id: shell, lineage: page.lineage })
    .update({ holds: json(['attendance']), kind: 'attendance', body_hash: null, media_type: null })
  const source = await loadOutline(demo.db, old)
  const marked = source.find(node => node.rubric !== null && node.points !== null)!
  const left = source.filter(node => node.type === 'item' && node.lineage !== marked.lineage)
  const plan = await planned([old], shell, ({ places, carry }) => ({
    places: { ...places, pairs: { [marked.lineage]: page.lineage } },
    carry: { ...carry, leave: left.map(node => node.lineage) },
  }))
  expect((await effectOf(demo.db, plan)).effect).toMatchObject({ filled: 1, added: { items: 0 } })
  await run(plan)
  const filled = (await loadOutline(demo.db, shell)).find(node => node.lineage === page.lineage)!
  const { title, points, body } = marked
  expect(filled).toMatchObject({ kind: 'attendance', title, points, body, settings: page.settings })
  const rubrics = await loadRubrics(demo.db, shell)
  expect(rubrics.map(rubric => rubric.lineage)).toContain(filled.rubric)
})
it('what comes under another name keeps it, and the next run proposes nothing for that', async () => {
  const [old, shell] = [await weaveBefore(), await newShell('05')]
  const source = await loadOutline(demo.db, old)
  const [unit, page] = [titled(source, 'Twills'), titled(source, 'Why a twill leans')]
  const names: Decide = ({ places }) => ({
    places: { ...places, titles: { [unit.lineage]: 'Week 2: Twills', [page.lineage]: 'The lean' } },
  })
  const plan = await planned([old], shell, names)
  expect((await effectOf(demo.db, plan)).effect.renamed).toBe(2)
  const record = await readRun(demo.db, sorrel(), await run(plan))
  expect(record.entries.map(each => each.title)).toEqual(
    expect.arrayContaining(['Week 2: Twills', 'The lean']),
  )
  const held = (await loadOutline(demo.db, shell)).map(node => node.title)
  expect(held).toEqual(expect.arrayContaining(['Week 2: Twills', 'The lean']))
  expect(held).not.toContain('Twills')
  expect((await effectOf(demo.db, await planned([old], shell))).writes).toBe(false)
  // The old name changes in the old course: the new one was chosen here, and stays.
  await demo.db('items').where({ course_id: old, lineage: page.lineage }).update({ title: 'Why twills lean' })
  expect((await effectOf(demo.db, await planned([old], shell))).writes).toBe(false)
})
