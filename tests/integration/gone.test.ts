import { describe, expect, it } from 'vitest'
import { madeThing } from '../../core/carry/added'
import { loadOutline } from '../../server/courses/content.queries'
import { readCourse } from '../../server/courses/lines'
import { editCourse } from '../../server/editing/edits'
import { readPlan } from '../../server/plans/plans'
import { findPlan } from '../../server/plans/plans.queries'
import { startAwaited, startPlan } from '../../server/plans/start'
import { effectOf } from '../../server/runs/effect'
import { readUndo, undoRun } from '../../server/runs/undo'
import { makeCourse } from '../../server/shells/shells'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('gone')
const me = () => demo.people.sorrel
const { planned, run } = useRolls(demo, me)
let made = 0
const shellOf = async (term = '2027-spring'): Promise<string> =>
  (await makeCourse(demo.db, me(), { term, code: `GON ${++made}`, section: '', title: `Gone ${made}` })).id
const course = async (source: string): Promise<string> =>
  (await demo.db('courses').where({ source_id: source }).first('id'))?.id ?? ''
const bread = () => course('bkg115-01-2026a')
const weave = () => course('wvg201-01-2026a')
const at = async (id: string, lineage: string) =>
  (await loadOutline(demo.db, id)).find(node => node.lineage === lineage)

describe('what is gone from a source', () => {
  it('stays in a running shell as it is, visible too: its removal is offered, not written', async () => {
    const [old, shell] = [await bread(), await shellOf()]
    await run(await planned([old], shell))
    const deleted = (await loadOutline(demo.db, old))
      .filter(node => node.type === 'item' && node.kind === 'page' && node.state === 'visible')
      .slice(0, 3)
      .map(node => node.lineage)
    const state = (is: 'deleted' | 'visible') =>
      demo.db('items').where({ course_id: old }).whereIn('lineage', deleted).update({ state: is })
    await state('deleted')
    const again = await planned([old], shell)
    const { effect, writes } = await effectOf(demo.db, again)
    expect({ writes, ...effect.updated, ...effect.removed }).toEqual({
      writes: false,
      things: 0,
      parts: {},
      places: 0,
    })
    const removes = await planned([old], shell, ({ places }) => ({
      places: { ...places, shell: { ...places.shell, [deleted[0] ?? '']: 'remove' } },
    }))
    expect((await effectOf(demo.db, removes)).effect.removed).toEqual({ things: 1, places: 0 })
    await run(removes)
    expect(await at(shell, deleted[0] ?? '')).toBeUndefined()
    expect(await at(shell, deleted[1] ?? '')).toMatchObject({ state: 'visible' })
    // Should it come back there, it is as it was: nothing to bring up to date.
    await state('visible')
    const back = await effectOf(demo.db, await planned([old], shell))
    expect(back.effect.updated.things).toBe(0)
  })
  it('is asked by source: what came from one course is not gone because another is rolled from', async () => {
    const [first, second, shell] = [await bread(), await weave(), await shellOf()]
    await run(await planned([first], shell))
    const other = await planned([second], shell)
    const { before } = await readPlan(demo.db, me(), other)
    const marked = before.bases.filter(({ isOther }) => isOther).length
    expect(marked).toBeGreaterThan(10)
    expect(
      before.bases.filter(({ type, isOther }) => type !== 'rules' && type !== 'category' && !isOther),
    ).toEqual([])
    // Of the first itself it is asked as ever.
    const own = await readPlan(demo.db, me(), await planned([first], shell))
    expect(own.before.bases.filter(({ isOther }) => isOther)).toEqual([])
  })
})

describe('what came with a run', () => {
  it('is told apart from what was there before, and from what was added by hand since', async () => {
    const [old, shell] = [await weave(), await course('wvg201-01-2027s')]
    const stood = (await loadOutline(demo.db, shell)).filter(node => node.fixed).map(node => node.lineage)
    expect(stood).not.toEqual([])
    await run(await planned([old], shell))
    const { lineage } = await editCourse(demo.db, me(), shell, {
      does: 'add',
      thing: madeThing.parse({ kind: 'discussion', title: 'A loom talk', text: '', points: null }),
      parent: null,
      category: null,
      opens: null,
      due: null,
    })
    const { lastRun, nodes } = await readCourse(demo.db, me(), shell)
    const came = new Set(lastRun?.came)
    expect(came.has(lineage ?? '')).toBe(true)
    // Ten came: four beside what the shell held, six in its empty places.
    const arrived = nodes.filter(node => node.type === 'item' && came.has(node.lineage))
    expect(arrived).toHaveLength(11)
    expect(stood.filter(each => came.has(each))).toEqual([])
  })
})

describe('a draft from a course that is then used in place', () => {
  it('rolls from what it was begun from: the course as it was; and from the course again once that is undone', async () => {
    const old = await weave()
    const draft = await startPlan(demo.db, me(), { sources: [old], target: await shellOf('2027-summer') })
    const more = await startPlan(demo.db, me(), {
      sources: [await bread(), old],
      target: await shellOf('2027-summer'),
    })
    const sources = async (id: string) => (await findPlan(demo.db, id))?.sourceIds
    const titles = async () => {
      const { source } = await readPlan(demo.db, me(), draft)
      return source.nodes.map(node => [node.title, node.due])
    }
    const before = await titles()
    const inPlace = await startAwaited(demo.db, me(), {
      sources: [old],
      term: '2027-summer',
      mode: 'in-place',
    })
    const runId = await run(inPlace)
    const snapshot = (await sources(inPlace))?.[0]
    expect(snapshot).not.toBe(old)
    expect(await sources(draft)).toEqual([snapshot])
    expect((await sources(more))?.[1]).toBe(snapshot)
    expect(await titles()).toEqual(before)
    const { fingerprint } = await readUndo(demo.db, me(), runId)
    await undoRun(demo.db, me(), runId, { fingerprint, keepAside: true })
    expect(await sources(draft)).toEqual([old])
    expect((await sources(more))?.[1]).toBe(old)
    expect(await titles()).toEqual(before)
  })
})
