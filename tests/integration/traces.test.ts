import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { answerOf, type Trace, type TraceDecision } from '../../core/student-data/traces/trace'
import type { PlanDocument } from '../../core/plan/document'
import { loadBody } from '../../server/courses/bodies.queries'
import { loadOutline } from '../../server/courses/content.queries'
import { effectOf } from '../../server/runs/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { startPlan } from '../../server/plans/start'
import { hashOf, storeBodies } from '../../server/courses/bodies.queries'
import { recordDocument } from '../../server/runs/record'
import { recordPdf } from '../../server/runs/record-pdf'
import { readRun, runPlan } from '../../server/runs/runs'
import { readUndo, undoRun } from '../../server/runs/undo'
import { textOfPdf } from '../../server/search/pdf'
import { lookThrough } from '../../server/student-data/look-through'
import { peopleIn, tracedItems } from '../../server/student-data/traces.queries'
import { ensureTraces, readTraces } from '../../server/student-data/traces'
import { loadCarrySide } from '../../server/courses/carry-side'
import { makeTemplate } from '../../server/sharing/templates'
import { withTemplateSources } from '../../server/sharing/templates.queries'
import { useDemo } from '../support/demo'
import { pdfFonts } from '../support/fonts'
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
async function undo(run: string): Promise<void> {
  const { fingerprint } = await readUndo(demo.db, me(), run)
  await undoRun(demo.db, me(), run, { fingerprint, keepAside: false })
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
    // A PDF cannot be written, and a recording not looked into: they stay behind.
    const leave = (await loadOutline(demo.db, old)).flatMap(({ title, lineage }) =>
      /\.(pdf|m4a)$/.test(title) ? [lineage] : [],
    )
    await decide(plan, document => ({ ...document, carry: { ...document.carry, leave } }))
    const { effect } = await effectOf(demo.db, plan)
    expect(effect.traces).toMatchObject({ out: 35, kept: 1, passed: 0 })
    const done = await run(plan)
    expect(await digest(old)).toBe(before)

    const target = await shell()
    const { traces } = await readRun(demo.db, me(), done)
    expect(traces).toMatchObject({ out: 35, left: 0, looked: { students: 14 } })
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
    await undo(done)
  })
})

/** What a plan finds of one course, with something of the course changed for the time of one test. */
async function withChange<T>(change: string, undone: string, work: () => Promise<T>): Promise<T> {
  await demo.db.raw(change)
  try {
    return await work()
  } finally {
    await demo.db.raw(undone)
  }
}
const itemOf = async (title: string) => {
  const row = await demo
    .db('items')
    .where({ course_id: await lights(), title })
    .first()
  if (!row) throw new Error(`${title} is not there`)
  return row
}

describe('what nobody saw', () => {
  it('a file that could not be looked into bars the run until somebody says that it comes; the record says who, and why', async () => {
    const plan = await started()
    await decide(plan, document => ({ ...document, carry: { ...document.carry, leave: [] } }))
    await settleAll(plan, () => false)
    const { looked } = await readTraces(demo.db, me(), plan)
    expect(looked?.unseen).toMatchObject([
      {
        title: 'fog-horn.m4a',
        file: 'horn.m4a',
        why: 'Northtide cannot read this kind of file.',
        size: 4024,
      },
    ])
    expect((await effectOf(demo.db, plan)).effect).toMatchObject({
      traces: { unseen: 0 },
      settle: { unseen: 1 },
    })
    await expect(run(plan)).rejects.toMatchObject({ code: 'unseen-to-settle' })
    const { lineage } = await itemOf('fog-horn.m4a')
    const left = (document: PlanDocument) => ({ ...document, carry: { ...document.carry, leave: [lineage] } })
    await decide(plan, left)
    expect((await effectOf(demo.db, plan)).effect).toMatchObject({
      traces: { unseen: 0 },
      settle: { unseen: 0 },
    })
    await decide(plan, document => ({ ...document, carry: { ...document.carry, leave: [] } }))
    const unseen = Object.fromEntries((looked?.unseen ?? []).map(({ id }) => [id, { by: 'H. Corrigall' }]))
    await decide(plan, document => ({ ...document, traces: { ...document.traces, unseen } }))
    const done = await run(plan)
    const { traces } = await readRun(demo.db, me(), done)
    expect(traces?.unseen).toEqual([
      {
        title: 'fog-horn.m4a (horn.m4a)',
        why: 'Northtide cannot read this kind of file.',
        size: 4024,
        by: 'H. Corrigall',
      },
    ])
    await undo(done)
    // The consent holds for the same file, and not for another in its place.
    const { body_hash: hash } = await itemOf('How to reach us')
    const film = await itemOf('fog-horn.m4a')
    await storeBodies(demo.db, [Buffer.from([0, 1, 2, 3])])
    await demo
      .db('items')
      .where({ course_id: await lights(), lineage })
      .update({ body_hash: hashOf(Buffer.from([0, 1, 2, 3])) })
    expect((await effectOf(demo.db, plan)).effect).toMatchObject({
      traces: { unseen: 0 },
      settle: { unseen: 1 },
    })
    await demo
      .db('items')
      .where({ course_id: await lights(), lineage })
      .update({ body_hash: film.body_hash })
    expect(hash).not.toBeNull()
  })
  it('somebody who came onto the roster since the search is looked for before anything is written', async () => {
    const plan = await started()
    await settleAll(plan, () => false)
    const { fingerprint } = await effectOf(demo.db, plan)
    const person = (await demo.db('people').where({ source_id: 'st-2026-002' }).first('id'))?.id ?? ''
    const enrolment = '01999999-3333-7333-8333-333333333333'
    await demo.db('enrolments').insert({
      id: enrolment,
      course_id: await lights(),
      person_id: person,
      role: 'student',
      origin: 'registrar',
      is_primary: false,
      may_run: false,
    })
    await expect(runPlan(demo.db, me(), plan, fingerprint)).rejects.toMatchObject({
      code: 'changed-since-consent',
    })
    await demo.db('enrolments').where({ id: enrolment }).delete()
  })
  it('a teacher who is called as a student was may be meant: somebody must say', async () => {
    const teacher = me().id
    const [was] = await demo.db('people').where({ id: teacher }).select('given_name', 'family_name')
    const name = (given: string, family: string) =>
      `UPDATE people SET given_name = '${given}', family_name = '${family}' WHERE id = '${teacher}'`
    await withChange(name('Maren', 'Holt'), name(was!.given_name, was!.family_name), async () => {
      const found = await tracesIn(await started())
      expect(found.filter(({ text }) => text === 'Maren Holt')).toMatchObject([
        { isAlsoHere: true, proposed: null },
      ])
    })
  })
  it('student data on a new item bars the run, though the counts are as they were', async () => {
    const target = demo.courses.template
    const { lineage } = (await demo.db('items').where({ course_id: target }).first('lineage')) ?? {
      lineage: '',
    }
    const marchetti = useRolls(demo, () => demo.people.marchetti)
    await marchetti.handIn(target, lineage)
    const before = await digest(target)
    const plan = await marchetti.planned([demo.courses.old], target)
    const moved = `CREATE TRIGGER moves_work AFTER INSERT ON items FOR EACH ROW
      UPDATE completions SET item_lineage = NEW.lineage
      WHERE item_lineage = '${lineage}' AND NEW.course_id = '${target}'`
    await withChange(moved, 'DROP TRIGGER moves_work', async () => {
      await expect(marchetti.run(plan)).rejects.toThrow(/the audit found student data/)
    })
    expect(await digest(target)).toBe(before)
  })
})

describe('names in what is around the texts', () => {
  /** The course with names where the demo has none: identifiers, letters of a scale, addresses, rubrics. */
  async function worse(): Promise<void> {
    const course = await lights()
    const { lineage } = await itemOf('The signal')
    await demo
      .db('items')
      .where({ course_id: course, lineage })
      .update({ identifier: 'i_fairlie_rosamund_7' })
    await demo.db('rubrics').where({ course_id: course }).update({ title: 'As Corwin Sele wrote it' })
    const scale = [
      { from: 500_000, letter: 'Rosamund Fairlie' },
      { from: 0, letter: 'F' },
    ]
    await demo.db.raw(
      `INSERT INTO grade_rules (course_id, reckoned_by, ungraded, decimals, scale) VALUES (?, 'weights', 'skip', 1, ?)
       ON DUPLICATE KEY UPDATE scale = VALUES(scale)`,
      [course, JSON.stringify(scale)],
    )
    const settings = JSON.stringify({ url: 'https://example.org/u/Maren%20Holt/log' })
    await demo
      .db('items')
      .where({ course_id: course, title: 'The light on the Ness' })
      .update({ settings: settings as never })
  }
  it('are found and go: identifiers of the package, letters of a scale, an address as a whole; and the record names nobody', async () => {
    await worse()
    const plan = await started()
    const found = await tracesIn(plan)
    const told = found.map(({ title, place, text }) => `${title}: ${place}: ${text}`)
    expect(told).toEqual(
      expect.arrayContaining([
        'The signal: identifier: fairlie_rosamund',
        'How grades are reckoned: details: Rosamund Fairlie',
        'The light on the Ness: settings: Maren Holt',
        'As Corwin Sele wrote it: title: Corwin Sele',
      ]),
    )
    const open = found.filter(trace => answerOf(trace, {}) === null)
    const answers = Object.fromEntries(
      open.map(trace => [
        trace.id,
        trace.can.includes('remove') ? { ...kept(''), does: 'remove' as const } : kept('a leaflet'),
      ]),
    )
    // One name stays in a title for a reason; one thing with a name in its title stays behind.
    const stays = found.find(({ text, place }) => text === 'Ingrith Vane' && place === 'title')
    const news = await itemOf('Well done, Halvard Erik Ness!')
    const unseen = ((await readTraces(demo.db, me(), plan)).looked?.unseen ?? []).map(
      ({ id }) => [id, { by: 'H. C.' }] as const,
    )
    await decide(plan, document => ({
      ...document,
      carry: { ...document.carry, leave: [news.lineage] },
      traces: {
        answers: { ...answers, ...(stays && { [stays.id]: kept('she agreed') }) },
        unseen: Object.fromEntries(unseen),
      },
    }))
    const done = await run(plan)
    const target = await shell()
    const item = await demo.db('items').where({ course_id: target, title: 'The signal' }).first()
    expect(item?.identifier).toBe(item?.lineage)
    const rules = await demo.db('grade_rules').where({ course_id: target }).first()
    expect(JSON.stringify(rules?.scale)).not.toContain('Fairlie')
    const ness = await demo.db('items').where({ course_id: target, title: 'The light on the Ness' }).first()
    expect(JSON.stringify(ness?.settings)).toContain('https://example.org/u//log')
    expect(await demo.db('grade_categories').where({ course_id: target }).pluck('title')).toContain(
      'Checks, as agreed with Ingrith Vane',
    )

    const record = await recordDocument(demo.db, me(), done)
    const pdf = await recordPdf(record, pdfFonts(), 'America/Halifax')
    const texts = [
      JSON.stringify(record),
      JSON.stringify(await readRun(demo.db, me(), done)),
      await textOfPdf(pdf, 1_000_000),
    ]
    expect(texts[2]).toContain('Checks, as agreed with a student')
    const students = await peopleIn(demo.db, [await lights()], ['student'])
    // These are words of the course as well: the Ness, a bay, stone, will, May.
    const words = new Set(['Ness', 'Bay', 'Stone', 'Will', 'May'])
    for (const text of texts)
      for (const { given, family, number, key, email } of students) {
        for (const name of [given, family]) if (!words.has(name)) expect(text).not.toContain(name)
        for (const whole of [`${given} ${family}`, number ?? key, key, email ?? key])
          expect(text).not.toContain(whole)
      }
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
