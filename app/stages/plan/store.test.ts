import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { watch } from 'vue'
import { partValuesOf } from '~~/core/carry/again'
import { recommendedPlan, type PlanDocument } from '~~/core/plan/document'
import { item, unit } from '~~/tests/support/outline'
import { somePlan } from '~/testing/plan'
import type { PlanReply } from '~~/shared/api/plans'
import { usePlan } from './store'

/** A server that holds one plan, as the real one does: a save on an old revision is refused with 412. */
function serverWith(document: PlanDocument = recommendedPlan()) {
  const held = somePlan({
    document,
    nodes: [unit('u'), item('a', { parent: 'u', unit: 'u' }), item('b'), item('c')],
  })
  const server = { plan: held, saves: 0, down: false }
  const answer = (status: number, body: unknown): Response =>
    new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } })
  vi.stubGlobal('fetch', (path: string, { method, body, headers }: RequestInit) => {
    if (server.down) return Promise.reject(new TypeError('offline'))
    if (method === 'GET') return Promise.resolve(answer(200, server.plan))
    const asked = new Headers(headers).get('if-match')
    if (asked !== `"${server.plan.revision}"`)
      return Promise.resolve(
        answer(412, { title: 'The plan was changed elsewhere', status: 412, detail: '', errors: [] }),
      )
    server.saves++
    const sent = JSON.parse(String(body)) as { document: PlanDocument }
    server.plan = {
      ...server.plan,
      revision: server.plan.revision + 1,
      document: sent.document,
      savedBy: 'I. Marchetti',
    }
    return Promise.resolve(answer(200, { revision: server.plan.revision, savedAt: server.plan.savedAt }))
  })
  /** What a colleague saves meanwhile. */
  const colleague = (change: Partial<PlanDocument>): void => {
    server.plan = {
      ...server.plan,
      revision: server.plan.revision + 1,
      document: { ...server.plan.document, ...change },
      savedBy: 'T. Okonjo',
    }
  }
  return { server, colleague }
}
async function opened(document?: PlanDocument) {
  const { server, colleague } = serverWith(document)
  const store = usePlan()
  await store.load('plan')
  return { store, server, colleague }
}
const titled = (title: string): PlanDocument['names'] => ({ ...recommendedPlan().names, title })

/** The page goes, and is loaded again. */
function leavePage(): void {
  window.dispatchEvent(new Event('pagehide'))
  setActivePinia(createPinia())
}

beforeEach(() => {
  sessionStorage.clear()
  setActivePinia(createPinia())
})
afterEach(() => vi.unstubAllGlobals())

describe('a plan at hand', () => {
  it('counts what comes across: what stands in a unit left behind stays with it', async () => {
    const { store } = await opened()
    expect(store.counts).toMatchObject({ items: 3, carried: 3, already: 0 })
    store.leave(['u', 'a'])
    expect(store.counts).toMatchObject({ items: 3, carried: 2, already: 0 })
  })
  it('tells what the shell has already apart from what comes across', async () => {
    const { server } = serverWith()
    const there = item('b')
    server.plan.target.nodes = [there]
    const parts = partValuesOf(there, { ...there, dates: there })
    server.plan.before = {
      bases: [{ source: 'b', lineage: 'b', type: 'item', how: 'carried', parts }],
      deleted: [],
    }
    const store = usePlan()
    await store.load('plan')
    expect(store.counts).toMatchObject({ items: 3, carried: 3, already: 1 })
  })
  it('goes back and forth step by step, and saves where it ends', async () => {
    const { store, server } = await opened()
    expect(store.canUndo).toBe(false)
    store.leave(['a'])
    store.leave(['a', 'b'])
    store.undo()
    expect(store.document?.carry.leave).toEqual(['a'])
    store.undo()
    expect(store.document?.carry.leave).toEqual([])
    expect(store.canUndo).toBe(false)
    store.redo()
    await store.save()
    expect(server.plan.document.carry.leave).toEqual(['a'])
  })
  it('keeps its steps through a reload, if nothing else was saved meanwhile', async () => {
    const { store, colleague } = await opened()
    store.leave(['a'])
    store.leave(['a', 'b'])
    store.undo()
    await store.save()
    leavePage()
    const reloaded = usePlan()
    await reloaded.load('plan')
    expect([reloaded.canUndo, reloaded.canRedo]).toEqual([true, true])
    reloaded.redo()
    expect(reloaded.document?.carry.leave).toEqual(['a', 'b'])
    reloaded.undo()
    reloaded.undo()
    expect(reloaded.document?.carry.leave).toEqual([])
    await reloaded.save()
    colleague({ carry: { ...recommendedPlan().carry, leave: ['c'] } })
    leavePage()
    const later = usePlan()
    await later.load('plan')
    expect([later.canUndo, later.canRedo]).toEqual([false, false])
  })
  it('asks again for what was taken of another course, where a step back came before the answer and one forward after it', async () => {
    const { store, server } = await opened()
    const taken = store.take({ course: 'other', lineage: 'x' }, { by: 'me', into: null, questions: null })
    store.undo()
    await taken
    // It was saved and answered without the item.
    expect(server.plan.document.added.found).toEqual({})
    expect(store.nodes.map(node => node.lineage)).not.toContain('x')
    const { course } = server.plan.source
    const other = { ...server.plan.source, course: { ...course, id: 'other' }, nodes: [item('x')] }
    server.plan = { ...server.plan, found: [other] }
    store.redo()
    await vi.waitFor(() => expect(store.nodes.map(node => node.lineage)).toContain('x'))
  })
  it('is asked what it does once all is saved that is shown: sections too, which stand beside its document', async () => {
    const { store } = await opened()
    const done: string[] = []
    const joining = store.changeBeside(async () => {
      await new Promise(resolve => setTimeout(resolve, 20))
      done.push('joined')
    })
    const asking = store.allSaved().then(() => done.push('asked'))
    await Promise.all([joining, asking])
    expect(done).toEqual(['joined', 'asked'])
    const failing = store.changeBeside(() => Promise.reject(new Error('refused')))
    await expect(failing).rejects.toThrow('refused')
    await expect(store.allSaved()).resolves.toBeUndefined()
  })
  it('a new change after a step back leaves nothing to do again', async () => {
    const { store } = await opened()
    store.leave(['a'])
    store.undo()
    store.leave(['b'])
    expect(store.canRedo).toBe(false)
  })
  it('cannot be changed by whoever may only look', async () => {
    const { server } = serverWith()
    server.plan = { ...server.plan, may: { edit: false, run: false } }
    const store = usePlan()
    await store.load('plan')
    store.leave(['a'])
    await store.save()
    expect(store.document?.carry.leave).toEqual([])
    expect(server.saves).toBe(0)
  })
  it('is held at dates item by item, and let go', async () => {
    const { store } = await opened()
    store.hold('a', { opens: null, due: null, closes: null })
    expect(Object.keys(store.document?.dates.itemRules ?? {})).toEqual(['a'])
    store.hold('a', null)
    expect(store.document?.dates.itemRules).toEqual({})
  })
})

describe('saving', () => {
  it('sends many changes in one go, and nothing where nothing was changed', async () => {
    const { store, server } = await opened()
    await store.save()
    expect(server.saves).toBe(0)
    store.leave(['a'])
    store.leave(['a', 'b'])
    expect(store.saving).toBe('waiting')
    await store.save()
    expect(server.saves).toBe(1)
    expect(store.saving).toBe('saved')
  })
  it('keeps a change that could not be saved, and saves it again', async () => {
    const { store, server } = await opened()
    server.down = true
    store.leave(['a'])
    await store.save()
    expect(store.saving).toBe('failed')
    expect(store.savingProblem?.title).toBe('The server cannot be reached')
    expect(store.document?.carry.leave).toEqual(['a'])
    server.down = false
    await store.save()
    expect(server.plan.document.carry.leave).toEqual(['a'])
    expect(store.savingProblem).toBeNull()
  })
})

describe('a plan changed elsewhere at the same time', () => {
  it('is joined: both changes are kept and saved', async () => {
    const { store, server, colleague } = await opened()
    colleague({ names: titled('Tides') })
    store.leave(['a'])
    await store.save()
    await store.save()
    expect(server.plan.document.names.title).toBe('Tides')
    expect(server.plan.document.carry.leave).toEqual(['a'])
    expect(store.elsewhere).toEqual({ by: 'T. Okonjo', clashes: [] })
  })
  it('goes from being run to run with nothing in between', async () => {
    const { store, server } = await opened()
    const writing = {
      plan: 'plan',
      by: 'I. Marchetti',
      since: '2027-01-05T20:00:00.000Z',
    } as PlanReply['writing']
    server.plan = { ...server.plan, writing }
    await store.look()
    const seen: unknown[] = []
    watch(
      () => [store.plan?.state, store.plan?.writing !== null],
      now => seen.push(now),
      { flush: 'sync' },
    )
    server.plan = { ...server.plan, writing: null, state: 'run' }
    await store.look()
    expect(seen).toEqual([['run', false]])
  })
  it('is taken over as soon as it is looked at', async () => {
    const { store, colleague } = await opened()
    colleague({ names: titled('Tides') })
    await store.look()
    expect(store.document?.names.title).toBe('Tides')
    expect(store.saving).toBe('saved')
  })
  it('where both changed one thing, says so and loses neither', async () => {
    const { store, server, colleague } = await opened()
    colleague({ names: titled('Theirs') })
    store.changeIn('names', { title: 'Mine' })
    await store.save()
    expect(store.saving).toBe('conflict')
    expect(store.elsewhere?.clashes).toEqual([{ path: 'names.title', mine: '“Mine”', theirs: '“Theirs”' }])
    expect(store.document?.names.title).toBe('Mine')
    expect(server.plan.document.names.title).toBe('Theirs')
    // Nothing goes out until somebody has chosen.
    store.leave(['b'])
    await store.save()
    expect(server.saves).toBe(0)
  })
  it('theirs can be shown, with a step back to mine', async () => {
    const { store, colleague } = await opened()
    colleague({ names: titled('Theirs') })
    store.changeIn('names', { title: 'Mine' })
    await store.save()
    await store.choose({ 'names.title': 'theirs' })
    expect(store.document?.names.title).toBe('Theirs')
    expect(store.elsewhere).toBeNull()
    store.undo()
    expect(store.document?.names.title).toBe('Mine')
  })
  it('mine can be kept, over theirs', async () => {
    const { store, server, colleague } = await opened()
    colleague({ names: { ...titled('Theirs'), label: 'Their label' } })
    store.changeIn('names', { title: 'Mine' })
    await store.save()
    store.leave(['b'])
    await store.choose({ 'names.title': 'mine' })
    expect(server.plan.document.names.title).toBe('Mine')
    expect(server.plan.document.names.label).toBe('Their label')
    expect(server.plan.document.carry.leave).toEqual(['b'])
    expect(store.saving).toBe('saved')
  })
  it('is asked about again where it was changed once more while one chose', async () => {
    const { store, server, colleague } = await opened()
    colleague({ names: titled('Theirs') })
    store.changeIn('names', { title: 'Mine' })
    await store.save()
    colleague({ names: titled('Theirs, better') })
    await store.choose({ 'names.title': 'mine' })
    expect(store.saving).toBe('conflict')
    expect(store.elsewhere?.clashes[0]?.theirs).toBe('“Theirs, better”')
    expect(server.plan.document.names.title).toBe('Theirs, better')
  })
})
