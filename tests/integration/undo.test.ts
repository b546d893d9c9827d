import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { present } from '../../core/present'
import { editCourse } from '../../server/editing/edits'
import { loadOutline } from '../../server/courses/content.queries'
import { readPlan, savePlan } from '../../server/plans/plans'
import { chooseSections } from '../../server/plans/sections'
import { startAwaited } from '../../server/plans/start'
import { readRun } from '../../server/runs/runs'
import { dropOldStates } from '../../server/runs/states.queries'
import { readUndo, undoRun } from '../../server/runs/undo'
import { makeCourse } from '../../server/shells/shells'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('undo')
const who = () => demo.people.marchetti
const { planned, run, digest, handIn } = useRolls(demo, who)
let made = 0
async function shell(section = ''): Promise<string> {
  const names = {
    term: '2027-spring',
    code: `UND ${section ? made : ++made}`,
    section,
    title: `Tides ${made}`,
  }
  return (await makeCourse(demo.db, who(), names)).id
}
/** Goes back, or forward again, as somebody does who has seen what that means. */
async function turn(runId: string, keepAside = false): Promise<void> {
  const { fingerprint } = await readUndo(demo.db, who(), runId)
  await undoRun(demo.db, who(), runId, { fingerprint, keepAside })
}
describe('undoing a run', () => {
  it('leaves the shell as it was, to the row, whatever was decided; putting it back leaves it as it was run', async () => {
    const nodes = await loadOutline(demo.db, demo.courses.old)
    const items = nodes.filter(node => node.type === 'item').map(node => node.lineage)
    await fc.assert(
      fc.asyncProperty(
        fc.record({
          leave: fc.subarray(items, { maxLength: 60 }),
          arrive: fc.constantFrom('as-was' as const, 'hidden' as const, 'listed' as const),
          fromTemplate: fc.boolean(),
          again: fc.boolean(),
          title: fc.constantFrom(null, 'Tides, another way'),
        }),
        async ({ leave, arrive, fromTemplate, again, title }) => {
          const target = await shell()
          const sections = [await shell('02')]
          if (fromTemplate) await run(await planned([demo.courses.template], target))
          const before = [await digest(target), await digest(present(sections[0]))]
          const plan = await planned([demo.courses.old], target, document => ({
            carry: { ...document.carry, leave, arrive },
            names: { ...document.names, title },
          }))
          await chooseSections(demo.db, who(), plan, sections)
          const id = await run(plan)
          const after = [await digest(target), await digest(present(sections[0]))]
          expect(after).not.toEqual(before)
          await turn(id)
          expect([await digest(target), await digest(present(sections[0]))]).toEqual(before)
          // What is changed in the plan meanwhile is no part of the run that is put back.
          const draft = await readPlan(demo.db, who(), plan)
          const other = { ...draft.document, names: { ...draft.document.names, title: 'Tides, not yet' } }
          await savePlan(demo.db, who(), plan, draft.revision, { document: other })
          await turn(id)
          expect([await digest(target), await digest(present(sections[0]))]).toEqual(after)
          expect((await readPlan(demo.db, who(), plan)).document).toEqual(draft.document)
          if (!again) return
          await turn(id)
          expect([await digest(target), await digest(present(sections[0]))]).toEqual(before)
          // The plan is a draft again: it can be run once more, to the same.
          expect((await readPlan(demo.db, who(), plan)).state).toBe('draft')
          await run(plan)
          expect(await digest(target)).toBe(after[0])
        },
      ),
      { numRuns: 5 },
    )
  })
  it('says first what was changed there since; that goes with it, and comes back with the run', async () => {
    const target = await shell()
    const id = await run(await planned([demo.courses.old], target))
    const [first] = await loadOutline(demo.db, target)
    const asked = await readUndo(demo.db, who(), id)
    expect(asked).toMatchObject({ does: 'undo', barred: null, mayRun: true, then: { units: 0, items: 0 } })
    await editCourse(demo.db, who(), target, {
      does: 'rename',
      titles: { [present(first).lineage]: 'Welcome all' },
    })
    const edited = await digest(target)
    // Whoever has not seen the change has not agreed to lose it.
    await expect(
      undoRun(demo.db, who(), id, { fingerprint: asked.fingerprint, keepAside: false }),
    ).rejects.toMatchObject({ code: 'changed-since-consent' })
    expect((await readUndo(demo.db, who(), id)).since.edits).toMatchObject([{ by: 'I. Marchetti' }])
    await turn(id)
    expect(await loadOutline(demo.db, target)).toEqual([])
    await turn(id)
    expect(await digest(target)).toBe(edited)
    expect((await readUndo(demo.db, who(), id)).history.map(({ kind }) => kind)).toEqual(['redo', 'undo'])
  })
  it('is refused where students have handed in, or keeps their work aside and names them', async () => {
    const target = await shell()
    const id = await run(await planned([demo.courses.old], target))
    const item = present((await loadOutline(demo.db, target)).find(node => node.kind === 'assignment'))
    await handIn(target, item.lineage)
    const run_ = await digest(target)
    const { since, fingerprint } = await readUndo(demo.db, who(), id)
    expect(since.work).toEqual([
      { lineage: item.lineage, title: item.title, kinds: [{ kind: 'completions', rows: 1 }] },
    ])
    expect(since.students).toHaveLength(1)
    await expect(undoRun(demo.db, who(), id, { fingerprint, keepAside: false })).rejects.toMatchObject({
      code: 'undo-students-work',
      told: { detail: expect.stringContaining(present(since.students[0])) as string },
    })
    expect(await digest(target)).toBe(run_)
    await turn(id, true)
    const done = () => demo.db('completions').where({ item_lineage: item.lineage })
    const inShell = async () =>
      (await done().join('enrolments as e', 'e.id', 'enrolment_id').where('e.course_id', target)).length
    expect(await inShell()).toBe(0)
    expect(await demo.db('clearings').where({ course_id: target, state: 'kept' })).toHaveLength(1)
    await turn(id)
    expect(await inShell()).toBe(1)
    expect(await digest(target)).toBe(run_)
  })
  it('is done once, by whoever may run there, and only of the latest run', async () => {
    const target = await shell()
    const id = await run(await planned([demo.courses.old], target))
    const { fingerprint } = await readUndo(demo.db, who(), id)
    await expect(
      undoRun(demo.db, demo.people.okonjo, id, { fingerprint, keepAside: false }),
    ).rejects.toMatchObject({ code: 'may-not-run-into' })
    const twice = await Promise.allSettled(
      [1, 2].map(() => undoRun(demo.db, who(), id, { fingerprint, keepAside: false })),
    )
    expect(twice.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    expect(await demo.db('undos').where({ run_id: id })).toHaveLength(1)
    const later = await run(await planned([demo.courses.template], target))
    await expect(turn(id)).rejects.toMatchObject({ code: 'undo-later-run' })
    expect((await readUndo(demo.db, who(), id)).later).toMatchObject({ id: later })
    await turn(later)
    await turn(id)
    expect((await loadOutline(demo.db, target)).length).toBeGreaterThan(100)
    // Put back, it stands; then a later one stands above it, and goes first.
    const above = await run(await planned([demo.courses.template], target))
    await expect(turn(id)).rejects.toMatchObject({ code: 'undo-later-run' })
    expect(await demo.db('undos').where({ run_id: id })).toHaveLength(2)
    await turn(above)
    await turn(id)
    expect(await loadOutline(demo.db, target)).toEqual([])
  })
  it('is possible for as long as the office keeps such things, and then no more; the copy is gone', async () => {
    const target = await shell()
    await run(await planned([demo.courses.template], target))
    const id = await run(await planned([demo.courses.old], target))
    const copies = () => demo.db('courses').where('source_id', 'like', 'kept:%')
    const count = (await copies()).length
    await demo.db('kept_states').where({ course_id: target }).update({ kept_at: '2026-01-01' })
    expect(await dropOldStates(demo.db, 90)).toBe(2)
    expect(await copies()).toHaveLength(count - 1)
    const { barred, fingerprint } = await readUndo(demo.db, who(), id)
    expect(barred?.title).toBe('This run cannot be undone any more')
    await expect(undoRun(demo.db, who(), id, { fingerprint, keepAside: false })).rejects.toMatchObject({
      code: 'undo-not-kept',
    })
  })
  it('that went in place puts the course back into its term, with its people and their work; and forward again', async () => {
    const course = demo.courses.old
    const people = () =>
      demo.db('enrolments').where({ course_id: course }).orderBy('id').select('id', 'person_id', 'source_id')
    const before = await digest(course)
    const roster = await people()
    const plan = await startAwaited(demo.db, who(), {
      sources: [course],
      term: '2027-summer',
      mode: 'in-place',
    })
    const { revision, document } = await readPlan(demo.db, who(), plan)
    await savePlan(demo.db, who(), plan, revision, { document })
    const id = await run(plan)
    const after = await digest(course)
    expect(after).not.toBe(before)
    const [outline, peopleAfter] = [await loadOutline(demo.db, course), await people()]
    await turn(id)
    expect(await digest(course)).toBe(before)
    expect(await people()).toEqual(roster)
    expect((await readPlan(demo.db, who(), plan)).state).toBe('draft')
    await turn(id)
    expect(await loadOutline(demo.db, course)).toEqual(outline)
    expect(await people()).toEqual(peopleAfter)
    const [row] = await demo.db('courses').where({ id: course })
    expect(row?.source_id).toContain('in-place:')
    await turn(id)
    expect(await digest(course)).toBe(before)
  })
  it('in place keeps its snapshot when what it could be undone by is forgotten: that is a course which people read', async () => {
    const plan = await startAwaited(demo.db, who(), {
      sources: [demo.courses.old],
      term: '2027-summer',
      mode: 'in-place',
    })
    const { snapshot } = await readRun(demo.db, who(), await run(plan))
    const copy = present(snapshot).id
    const before = await digest(copy)
    await demo.db('kept_states').update({ kept_at: '2026-01-01' })
    expect(await dropOldStates(demo.db, 90)).toBeGreaterThan(0)
    expect(await digest(copy)).toBe(before)
    expect((await loadOutline(demo.db, copy)).length).toBeGreaterThan(90)
  })
})
