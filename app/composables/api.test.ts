import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, ApiProblem, onSignedOut, useAction, useLoaded } from './api'

afterEach(() => vi.unstubAllGlobals())
/** Something to wait for that is let go by hand. */
function gate<T>() {
  let open: (value: T) => void = () => {}
  const waiting = new Promise<T>(resolve => {
    open = resolve
  })
  return { waiting, open }
}

describe('something a person asks for', () => {
  it('is done once, however often it is asked for meanwhile', async () => {
    const { waiting, open } = gate<null>()
    let done = 0
    const action = useAction(() => {
      done++
      return waiting
    })
    const first = action.run()
    expect(action.busy.value).toBe(true)
    expect(await action.run()).toBe(false)
    open(null)
    expect(await first).toBe(true)
    expect(done).toBe(1)
    expect(action.busy.value).toBe(false)
  })
  it('says what went wrong, until it is tried again', async () => {
    let goesWrong = true
    const action = useAction(() => (goesWrong ? Promise.reject(new Error('no ink')) : Promise.resolve()))
    expect(await action.run()).toBe(false)
    expect(action.problem.value?.detail).toBe('no ink')
    goesWrong = false
    expect(await action.run()).toBe(true)
    expect(action.problem.value).toBeNull()
  })
})
describe('something loaded', () => {
  it('is the newest that was asked for, whichever answer comes last', async () => {
    const gates = [gate<string>(), gate<string>()]
    let asked = 0
    const loaded = useLoaded(() => gates[asked++]?.waiting ?? Promise.reject(new Error('asked too often')))
    const [first, second] = [loaded.refresh(), loaded.refresh()]
    gates[1]?.open('new')
    await second
    gates[0]?.open('old')
    await first
    expect(loaded.data.value).toBe('new')
    expect(loaded.loading.value).toBe(false)
  })
})
describe('the server', () => {
  it('is told as a problem with its fields, and where the session has ended that is told too', async () => {
    const ended = vi.fn(() => Promise.resolve(false))
    onSignedOut(ended)
    const body = {
      type: 'about:blank',
      title: 'Sign in first',
      status: 401,
      detail: 'Your session has ended.',
      errors: [],
    }
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body), { status: 401 })))
    await expect(api.get('/shells')).rejects.toMatchObject({ status: 401, title: 'Sign in first' })
    expect(ended).toHaveBeenCalledOnce()
  })
  it('is asked again once one has signed in again, with what was to be saved', async () => {
    let isIn = false
    onSignedOut(() => {
      isIn = true
      return Promise.resolve(true)
    })
    const sent: unknown[] = []
    vi.stubGlobal('fetch', (_: string, { body }: RequestInit) => {
      sent.push(body)
      return Promise.resolve(new Response(JSON.stringify({ id: 'saved' }), { status: isIn ? 200 : 401 }))
    })
    await expect(api.put('/plans/1', { title: 'Mine' }, 4)).resolves.toEqual({ id: 'saved' })
    expect(sent).toEqual(['{"title":"Mine"}', '{"title":"Mine"}'])
  })
  it('that does not speak as it should is said with a way on', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('<html>', { status: 502 })))
    const problem: unknown = await api.get('/shells').catch((error: unknown) => error)
    expect(problem).toBeInstanceOf(ApiProblem)
    expect(problem).toMatchObject({
      status: 502,
      detail: 'What is on this page is kept. Try again; if it happens again, tell the help desk.',
    })
  })
})
