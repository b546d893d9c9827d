import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { answerOf, type Trace, type TraceDecision } from '../../core/student-data/traces/trace'
import type { PlanDocument } from '../../core/plan/document'
import { loadBody } from '../../server/courses/bodies.queries'
import { loadOutline } from '../../server/courses/content.queries'
import { effectOf } from '../../server/plans/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { startPlan } from '../../server/plans/start'
import { readRun } from '../../server/runs/runs'
import { lookThrough } from '../../server/student-data/look-through'
import { peopleIn, tracedItems } from '../../server/student-data/traces.queries'
import { ensureTraces, readTraces } from '../../server/student-data/traces'
import { loadCarrySide } from '../../server/courses/carry-side'
import { makeTemplate } from '../../server/sharing/templates'
import { withTemplateSources } from '../../server/sharing/templates.queries'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

/** What was planted in the demo: the title, the place and the words; comments begin with a hash. */
const planted = readFileSync(new URL('../../demo/traces.txt', import.meta.url), 'utf8')
  .split('\n')
  .filter(line => line !== '' && !line.startsWith('#'))
  .sort()
const demo = useDemo('traces')
const course = async (source: string): Promise<string> =>
  (await demo.db('courses').where({ source_id: source }).first('id'))?.id ?? ''
const lights = () => course('lth220-01-2026a')
const shell = () => course('lth220-01-2027s')
const me = () => demo.people.corrigall
const { planned, run, digest } = useRolls(demo, me)
const started = async (): Promise<string> => planned([await lights()], await shell())
async function tracesIn(plan: string): Promise<Trace[]> {
  await ensureTraces(demo.db, plan)
  return (await readTraces(demo.db, me(), plan)).found
}
async function decide(plan: string, change: (document: PlanDocument) => PlanDocument): Promise<void> {
  const { document, revision } = await readPlan(demo.db, me(), plan)
  await savePlan(demo.db, me(), plan, revision, { document: change(document) })
}
const kept = (because: string): TraceDecision => ({ does: 'keep', because, by: 'H. Corrigall' })
/** Every trace that nobody has said anything of is removed, but for some that stay. */
async function settleAll(plan: string, stays: (trace: Trace) => boolean): Promise<void> {
  const found = await tracesIn(plan)
  const open = found.filter(trace => answerOf(trace, {}) === null)
  const answers = open.map(trace => {
    const decision = stays(trace) || !trace.can.includes('remove') ? kept('a court case') : kept('')
    return [trace.id, decision.because ? decision : { ...decision, does: 'remove' as const }] as const
  })
  await decide(plan, document => ({
    ...document,
    traces: { answers: Object.fromEntries(answers), unseen: {} },
  }))
}
const textOf = async (courseId: string, title: string): Promise<string> => {
  const node = (await loadOutline(demo.db, courseId)).find(each => each.title === title)
  const bytes = node?.body ? await loadBody(demo.db, node.body) : null
  return bytes?.toString('utf8') ?? ''
}

describe('traces of last term’s students', () => {
  it('are found in texts, links, comments, titles, settings, questions and files, and in no word that is only one', async () => {
    const found = await tracesIn(await started())
    const told = found.map(({ title, place, text, kinds }) => `${title}: ${place}: ${kinds ? 'table' : text}`)
    expect(told.sort()).toEqual(planted)
    const clean = await startPlan(demo.db, demo.people.marchetti, {
      sources: [demo.courses.old],
      target: demo.courses.empty,
    })
    await ensureTraces(demo.db, clean)
    const { found: alarms, looked } = await readTraces(demo.db, demo.people.marchetti, clean)
    expect(alarms).toEqual([])
    expect(looked).toMatchObject({ students: 31, unseen: [] })
  })
  it('bar a run until each is settled; nothing is written', async () => {
    const plan = await started()
    const before = await digest(await shell())
    await expect(run(plan)).rejects.toMatchObject({ code: 'traces-to-settle' })
    expect(await digest(await shell())).toBe(before)
  })
  it('want a reason where they stay', async () => {
    const plan = await started()
    const [first] = await tracesIn(plan)
    const answers = { [first?.id ?? '']: kept('') }
    await expect(
      decide(plan, document => ({ ...document, traces: { answers, unseen: {} } })),
    ).rejects.toMatchObject({
      code: 'plan-faults',
    })
  })
  it('are taken out of what comes; the old course keeps its own; the shell’s text is searched again; a second run proposes nothing', async () => {
    const plan = await started()
    const old = await lights()
    const before = await digest(old)
    await settleAll(plan, trace => trace.text === 'Holt')
    // A PDF cannot be written: it stays behind.
    const leaflet = (await loadOutline(demo.db, old)).find(node => node.title.endsWith('.pdf'))?.lineage ?? ''
    await decide(plan, document => ({ ...document, carry: { ...document.carry, leave: [leaflet] } }))
    const { effect } = await effectOf(demo.db, plan)
    expect(effect.traces).toMatchObject({ out: 32, kept: 1, passed: 0, settle: 0 })
    const done = await run(plan)
    expect(await digest(old)).toBe(before)

    const target = await shell()
    const { traces } = await readRun(demo.db, me(), done)
    expect(traces).toMatchObject({ out: 32, left: 0, looked: { students: 14 } })
    expect(traces?.kept).toEqual([
      { title: 'Light dues and the law', place: 'text', because: 'a court case', by: 'H. Corrigall' },
    ])
    const reach = await textOf(target, 'How to reach us')
    expect(reach).toContain('The key to the hut is with a student until the end of term')
    expect(reach).not.toMatch(/mailto|Penhallow|N04261|Ingrith/)
    expect(await textOf(target, 'party-results.csv')).not.toMatch(/Quist|N04/)
    expect(await textOf(target, 'fog-hut.jpg')).not.toContain('Photograph')
    const units = (await loadOutline(demo.db, target)).filter(node => node.type === 'unit')
    expect(units.map(node => node.title)).toContain('Unit 3: Fog, and the notes of a student')
    const items = await tracedItems(demo.db, target)
    const settings = JSON.stringify([...items.values()].map(item => item.settings))
    expect(settings).not.toMatch(/lt-2026|N04|port-ellery\.example/)
    expect(settings).toContain('Likeness check')

    // Asked in another way: nothing of anybody's is found in the shell but what was kept.
    const students = await peopleIn(demo.db, [old], ['student'])
    const side = await loadCarrySide(demo.db, target)
    const again = await lookThrough(demo.db, [{ side, items, keyIn: key => key }], {
      students,
      staff: [],
      alsoHere: new Set(),
      keyOf: null,
    })
    expect(again.found.map(trace => trace.text)).toEqual(['Holt'])
    expect(await demo.db('trace_searches').where({ plan_id: plan })).toEqual([])

    const second = await started()
    expect(await effectOf(demo.db, second)).toMatchObject({ writes: false })
  })
})

describe('a template', () => {
  it('has no students; those of the course that it was made from are looked for in it', async () => {
    const { id } = await makeTemplate(demo.db, me(), await lights(), {
      title: 'Lights, kept',
      subject: 'Hydrography',
      arrangement: 'units',
    })
    const found = await tracesIn(await planned([id], await shell()))
    expect(found.map(trace => trace.text)).toContain('Zoë Tarrant-Müller')
    // What is made from a template has its courses too.
    const { id: again } = await makeTemplate(demo.db, me(), id, {
      title: 'Lights, kept again',
      subject: 'Hydrography',
      arrangement: 'units',
    })
    expect(await withTemplateSources(demo.db, [again])).toContain(await lights())
  })
})
