import { describe, expect, it } from 'vitest'
import { carriedBefore, carrySide } from '../../server/courses/known'
import { contentTables } from '../../server/courses/content.queries'
import { loadCarrySide } from '../../server/courses/carry-side'
import { contentTally } from '../../server/courses/tally.queries'
import { inSnapshot } from '../../server/db/transaction'
import { effectOf } from '../../server/runs/effect'
import { readUndo, undoRun } from '../../server/runs/undo'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('known')
const rolls = useRolls(demo, () => demo.people.marchetti)
const held = (course: string) => inSnapshot(demo.db, trx => carrySide(trx, course))

describe('what a course holds', () => {
  it('is the same object until somebody writes to any of its tables, whoever that is', async () => {
    const { old } = demo.courses
    const first = await held(old)
    expect(await held(old)).toBe(first)
    for (const table of contentTables as readonly 'items'[]) {
      const [row] = await demo.db(table).where({ course_id: old }).limit(1)
      if (!row) continue
      const before = await contentTally(demo.db, old)
      const column = Object.keys(row).find(name => ['position', 'days', 'decimals'].includes(name))
      if (column)
        await demo.db.raw('UPDATE ?? SET ?? = ?? + 1 WHERE course_id = ?', [table, column, column, old])
      else await demo.db(table).where({ course_id: old }).delete()
      expect(await contentTally(demo.db, old), table).not.toBe(before)
    }
    const now = await held(old)
    expect(now).not.toBe(first)
    expect(now).toEqual(await loadCarrySide(demo.db, old))
    expect(now.nodes[0]!.position).not.toBe(first.nodes[0]!.position)
  })
  it('is kept only as a snapshot has it: what is not committed is nobody’s', async () => {
    const { old } = demo.courses
    const before = await held(old)
    await demo.db
      .transaction(async trx => {
        await trx('items').where({ course_id: old }).update({ title: 'never' })
        expect((await carrySide(trx, old)).nodes.find(node => node.type === 'item')?.title).toBe('never')
        expect(await held(old)).toBe(before)
        throw new Error('rolled back')
      })
      .catch(() => {})
    expect(await held(old)).toBe(before)
  })
  it('is as it stands after a run, and after its undoing; so is what was carried before', async () => {
    const { empty } = demo.courses
    const plan = await rolls.planned([demo.courses.old], empty)
    expect((await held(empty)).nodes).toEqual([])
    const run = await rolls.run(plan)
    const filled = await held(empty)
    expect(filled.nodes.length).toBeGreaterThan(90)
    expect(filled).toEqual(await loadCarrySide(demo.db, empty))
    expect((await inSnapshot(demo.db, trx => carriedBefore(trx, empty, false))).bases.length).toBeGreaterThan(
      90,
    )
    const { fingerprint } = await readUndo(demo.db, demo.people.marchetti, run)
    await undoRun(demo.db, demo.people.marchetti, run, { fingerprint, keepAside: false })
    expect((await held(empty)).nodes).toEqual([])
    expect((await inSnapshot(demo.db, trx => carriedBefore(trx, empty, false))).bases).toEqual([])
  })
  it('gives an effect the same mark however often one looks, and another one after any change', async () => {
    const plan = await rolls.planned([demo.courses.old], demo.courses.template)
    const first = await effectOf(demo.db, plan)
    expect(await effectOf(demo.db, plan)).toEqual(first)
    await demo.db('items').where({ course_id: demo.courses.template }).limit(1).update({ title: 'Another' })
    const second = await effectOf(demo.db, plan)
    expect(second.fingerprint).not.toBe(first.fingerprint)
  })
})
