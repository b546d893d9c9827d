import { afterEach, describe, expect, it } from 'vitest'
import { hashOf, storeBodies } from '../../server/courses/bodies.queries'
import { answerOf } from '../../core/student-data/traces/trace'
import { effectOf } from '../../server/runs/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { runPlan } from '../../server/runs/runs'
import { readUndo, undoRun } from '../../server/runs/undo'
import { readTraces } from '../../server/student-data/traces'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('written')
const me = () => demo.people.marchetti
const rolls = useRolls(demo, me)
async function undo(run: string): Promise<void> {
  const { fingerprint } = await readUndo(demo.db, me(), run)
  await undoRun(demo.db, me(), run, { fingerprint, keepAside: false })
}
const titlesIn = (course: string): Promise<string[]> =>
  demo.db('items').where({ course_id: course }).whereNot({ state: 'deleted' }).pluck('title')

describe('a run', () => {
  it('is refused where anything it rests on has changed since somebody agreed to it, and writes what stands now', async () => {
    const { old, empty } = demo.courses
    const plan = await rolls.planned([old], empty)
    const { fingerprint } = await effectOf(demo.db, plan)
    const [first, second] = await demo.db('items').where({ course_id: old, kind: 'page' }).limit(2)
    await demo
      .db('items')
      .where({ course_id: old, lineage: first!.lineage })
      .update({ title: 'Charts of the bay, renamed since' })
    await expect(runPlan(demo.db, me(), plan, fingerprint)).rejects.toMatchObject({
      code: 'changed-since-consent',
    })
    const { document, revision } = await readPlan(demo.db, me(), plan)
    await savePlan(demo.db, me(), plan, revision, {
      document: { ...document, carry: { ...document.carry, leave: [second!.lineage] } },
    })
    const run = await rolls.run(plan)
    const titles = await titlesIn(empty)
    expect(titles).toContain('Charts of the bay, renamed since')
    expect(titles).not.toContain(second!.title)
    await undo(run)
  })
})

describe('what a run has written', () => {
  afterEach(() => demo.db.raw('DROP TRIGGER IF EXISTS writes_otherwise'))
  const course = async (source: string): Promise<string> =>
    (await demo.db('courses').where({ source_id: source }).first('id'))?.id ?? ''
  /** A database that writes something else than it was told. */
  const writesOtherwise = (change: string): Promise<unknown> =>
    demo.db.raw(`CREATE TRIGGER writes_otherwise BEFORE INSERT ON items FOR EACH ROW ${change}`)
  const corrigall = () => demo.people.corrigall
  /** The course with traces of students in it, each of them taken out. */
  async function settled(): Promise<{ plan: string; shell: string; fingerprint: string }> {
    const shell = await course('lth220-01-2027s')
    const plan = await useRolls(demo, corrigall).planned([await course('lth220-01-2026a')], shell)
    await effectOf(demo.db, plan)
    const { found, looked } = await readTraces(demo.db, corrigall(), plan)
    const { document, revision } = await readPlan(demo.db, corrigall(), plan)
    const answers = Object.fromEntries(
      found
        .filter(trace => answerOf(trace, {}) === null)
        .map(({ id, can }) => [
          id,
          can.includes('remove')
            ? { does: 'remove' as const, because: '', by: '' }
            : { does: 'keep' as const, because: 'nobody can write it', by: 'H. Corrigall' },
        ]),
    )
    await savePlan(demo.db, corrigall(), plan, revision, {
      document: {
        ...document,
        traces: {
          answers,
          unseen: Object.fromEntries((looked?.unseen ?? []).map(({ id }) => [id, { by: 'H. C.' }])),
        },
      },
    })
    return { plan, shell, fingerprint: (await effectOf(demo.db, plan)).fingerprint }
  }
  it('is read again: a name that stands there after all bars the run, in a title, in settings or in a text', async () => {
    const { plan, shell, fingerprint } = await settled()
    const before = await rolls.digest(shell)
    const [named] = await demo
      .db('people')
      .join('enrolments', 'enrolments.person_id', 'people.id')
      .where({ course_id: await course('lth220-01-2026a'), role: 'student' })
      .orderBy('people.id')
      .select('given_name', 'family_name')
    const name = `${named!.given_name} ${named!.family_name}`
    const [body] = await demo
      .db('items')
      .where({ course_id: await course('lth220-01-2026a'), title: 'How to reach us' })
      .pluck('body_hash')
    // The second two change what nobody was shown, in something of which a name was taken out, though nobody is named there.
    const other = Buffer.from('<p>The key to the hut is with a student.</p>')
    await storeBodies(demo.db, [other])
    for (const [what, is, code] of [
      ['title', `'Ask ${name}'`, 'audit-found-trace'],
      ['settings', `'{"note": "Ask ${name}"}'`, 'audit-found-trace'],
      ['body_hash', `'${body}'`, 'audit-found-trace'],
      ['title', "'How to reach  us'", 'audit-changed-elsewhere'],
      ['body_hash', `'${hashOf(other)}'`, 'audit-changed-elsewhere'],
    ] as const) {
      await writesOtherwise(`SET NEW.${what} = IF(NEW.title = 'How to reach us', ${is}, NEW.${what})`)
      await expect(runPlan(demo.db, corrigall(), plan, fingerprint), is).rejects.toMatchObject({ code })
      await demo.db.raw('DROP TRIGGER writes_otherwise')
      expect(await rolls.digest(shell)).toBe(before)
    }
    await runPlan(demo.db, corrigall(), plan, fingerprint)
    expect(await titlesIn(shell)).toContain('How to reach us')
  })
  it('is counted: a date that is not there bars the run', async () => {
    const { old, empty } = demo.courses
    const plan = await rolls.planned([old], empty)
    const before = await rolls.digest(empty)
    await writesOtherwise('SET NEW.due = NULL')
    await expect(rolls.run(plan)).rejects.toThrow(/dates written/)
    expect(await rolls.digest(empty)).toBe(before)
  })
})
