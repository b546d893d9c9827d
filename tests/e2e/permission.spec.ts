import { readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { request, type APIRequestContext } from '@playwright/test'
import { base, expect, letIn, signInRequest, test } from './support'

/** Every route of the API, from the files that make them. */
const folder = fileURLToPath(new URL('../../server/api/v1', import.meta.url))
const routes = (readdirSync(folder, { recursive: true }) as string[])
  .filter(file => file.endsWith('.ts') && !file.includes('...'))
  .map(file => {
    const [, path, method] = /^(.*?)\.(get|post|put|delete|patch)\.ts$/.exec(file.replaceAll('\\', '/'))!
    return { method: method!.toUpperCase(), path: `/api/v1/${path!.replace(/\/?index$/, '')}` }
  })
const open = new Set([
  'GET /api/v1/health',
  'GET /api/v1/ready',
  'POST /api/v1/invitations',
  'PUT /api/v1/invitations/password',
  'GET /api/v1/session',
  'POST /api/v1/session',
  'DELETE /api/v1/session',
])
const nobodys = '01999999-9999-7999-8999-999999999999'
const call = (
  on: APIRequestContext,
  route: { method: string; path: string },
  ids: Record<string, string> = {},
) =>
  on.fetch(`${base()}${route.path.replace(/\[(\w+)\]/g, (_, name: string) => ids[name] ?? nobodys)}`, {
    method: route.method,
    data: ['POST', 'PUT'].includes(route.method) ? {} : undefined,
  })

test('every route asks who is there, but for the few that must not', async () => {
  expect(routes.length).toBeGreaterThan(15)
  const stranger = await request.newContext()
  for (const route of routes) {
    const status = (await call(stranger, route)).status()
    if (open.has(`${route.method} ${route.path}`))
      expect(status, `${route.method} ${route.path}`).not.toBe(403)
    else expect(status, `${route.method} ${route.path}`).toBe(401)
  }
})

test('what is not theirs is not there for them; each kind of person may what they may', async () => {
  const as = async (login: string, password: string): Promise<APIRequestContext> => {
    const context = await request.newContext()
    await signInRequest(context, login, password)
    return context
  }
  const [instructor, assistant, coordinator, office] = [
    await as('marchetti', 'slack-water'),
    await as('okonjo', 'neap-tide'),
    await as('brandt', 'spring-range'),
    await as('ellwood', 'chart-datum'),
  ]
  // With no such course or plan, every route that names one answers as if it did not exist.
  for (const route of routes.filter(each => each.path.includes('[id]')))
    expect((await call(office, route)).status(), `${route.method} ${route.path}`).toBe(404)

  const { courses } = (await (await office.get(`${base()}/api/v1/courses`)).json()) as {
    courses: { id: string; code: string; section: string; term: { name: string } }[]
  }
  const old = courses.find(course => course.code === 'HYD 240' && course.term.name === 'Autumn 2026')!.id
  const shell = courses.find(course => course.code === 'HYD 240' && course.section === '02')!.id
  const plan = async (who: APIRequestContext) =>
    who.post(`${base()}/api/v1/plans`, { data: { sources: [old], target: shell } })
  expect((await plan(coordinator)).status()).toBe(403)
  const made = await plan(assistant)
  expect(made.status()).toBe(200)
  const { id } = (await made.json()) as { id: string }
  const run = async (who: APIRequestContext) =>
    (await who.post(`${base()}/api/v1/plans/${id}/run`, { data: { fingerprint: 'stale' } })).status()
  const stop = async (who: APIRequestContext) =>
    (await who.delete(`${base()}/api/v1/plans/${id}/run`)).status()
  // Who may is asked at once; what they have seen is compared when it is done, and a stale mark writes nothing.
  expect([await run(coordinator), await run(assistant), await run(instructor)]).toEqual([403, 403, 200])
  const state = async () =>
    (await (await office.get(`${base()}/api/v1/plans/${id}/state`)).json()) as {
      outcome: { title: string } | null
    }
  await expect.poll(async () => (await state()).outcome?.title).toBe('Something changed since you looked')
  expect([await stop(coordinator), await stop(assistant), await stop(office)]).toEqual([403, 403, 200])
  for (const who of [instructor, assistant, coordinator, office])
    expect((await who.get(`${base()}/api/v1/plans/${id}`)).status()).toBe(200)
  expect((await coordinator.delete(`${base()}/api/v1/plans/${id}`)).status()).toBe(403)
  expect((await assistant.put(`${base()}/api/v1/plans/${id}`, { data: {} })).status()).toBe(400)
})

/** What each kind of person is answered for the same request. 2xx: may; 403: sees it and may not; 404: it is not there for them. */
const matrix: [
  request: string,
  body: unknown,
  instructor: number,
  assistant: number,
  coordinator: number,
  office: number,
  stranger: number,
][] = [
  ['GET /courses/OLD', null, 200, 200, 200, 200, 404],
  ['GET /courses/OLD/staff', null, 200, 200, 200, 200, 404],
  ['PUT /courses/OLD/staff', { person: nobodys, mayRun: true }, 400, 403, 403, 400, 404],
  ['GET /courses/OLD/shares', null, 200, 403, 200, 200, 404],
  ['GET /courses/OLD/sections', null, 200, 200, 200, 200, 404],
  ['PUT /courses/OLD/sections/NOBODY', { agreed: [] }, 404, 403, 403, 404, 404],
  ['DELETE /courses/OLD/sections/NOBODY', null, 404, 403, 403, 404, 404],
  ['GET /courses/OLD/ledger', null, 200, 403, 403, 200, 404],
  ['POST /courses/OLD/edits', { does: 'change', things: {} }, 400, 403, 403, 400, 404],
  ['GET /courses/OLD/more', null, 200, 200, 200, 200, 404],
  ['POST /courses/OLD/shares', { days: 0 }, 400, 403, 400, 400, 404],
  ['POST /courses/OLD/template', {}, 400, 400, 400, 400, 404],
  ['GET /courses/OLD/dates.csv', null, 200, 200, 200, 200, 404],
  ['PUT /courses/OLD/preferences', { pinned: false }, 200, 200, 200, 200, 404],
  ['PUT /courses/OLD/items/NOBODY/fixed', { fixed: true }, 403, 403, 403, 404, 404],
  ['GET /shells/SHELL/ways', null, 200, 200, 200, 200, 404],
  ['GET /shells', null, 200, 200, 200, 200, 200],
  ['POST /plans/awaited', { sources: ['OLD'], term: 'no-such-term' }, 400, 400, 400, 400, 404],
  [
    'POST /plans/awaited',
    { sources: ['OLD'], term: '2027-summer', mode: 'in-place' },
    200,
    403,
    403,
    200,
    404,
  ],
  ['GET /templates', null, 200, 200, 200, 200, 200],
  ['GET /registrar', null, 200, 200, 200, 200, 200],
  ['GET /requests', null, 200, 200, 200, 200, 200],
  ['GET /log', null, 200, 200, 200, 200, 200],
  ['GET /habits', null, 200, 200, 200, 200, 200],
  ['GET /batches', null, 403, 403, 403, 200, 403],
  ['POST /batches', {}, 403, 403, 403, 400, 403],
  ['POST /batches/NOBODY/run', {}, 403, 403, 403, 404, 403],
  ['POST /batches/NOBODY/try', { which: 'waiting' }, 403, 403, 403, 404, 403],
  ['POST /batches/NOBODY/undo', {}, 403, 403, 403, 404, 403],
  ['GET /batches/NOBODY/record.csv', null, 403, 403, 403, 404, 403],
  ['DELETE /habits/NOBODY', null, 404, 404, 404, 404, 404],
  ['GET /people', null, 403, 403, 403, 200, 403],
  ['POST /people/NOBODY/invitation', {}, 403, 403, 403, 404, 403],
  ['DELETE /people/NOBODY/invitation', null, 403, 403, 403, 404, 403],
  ['GET /you/sign-ins', null, 200, 200, 200, 200, 200],
  ['DELETE /you/sign-ins/NOBODY', null, 404, 404, 404, 404, 404],
  ['PUT /you/password', { current: '' }, 400, 400, 400, 400, 400],
  ['GET /student-data/sweep', null, 403, 403, 403, 200, 403],
  ['POST /student-data/sweep', { courses: [] }, 403, 403, 403, 400, 403],
  ['GET /student-data/rules', null, 403, 403, 403, 200, 403],
  ['PUT /student-data/rules', { days: 1 }, 403, 403, 403, 400, 403],
  ['GET /courses/OLD/clearings', null, 200, 403, 403, 200, 404],
  ['POST /courses/SHELL/clearings/NOBODY/restore', {}, 404, 403, 403, 404, 404],
  ['PUT /codes', { patterns: [{ text: '{wrong}', seasons: {} }], mapped: [] }, 403, 403, 403, 400, 403],
]
test('routes by roles: who may share, delegate, plan, roll in place and see people', async () => {
  await letIn('st-2026-010', 'not-a-real-one', undefined, 'e2e-stranger')
  const contexts: APIRequestContext[] = []
  for (const [login, password] of [
    ['marchetti', 'slack-water'],
    ['okonjo', 'neap-tide'],
    ['brandt', 'spring-range'],
    ['ellwood', 'chart-datum'],
    ['e2e-stranger', 'not-a-real-one'],
  ] as const) {
    const context = await request.newContext()
    await signInRequest(context, login, password)
    contexts.push(context)
  }
  const { courses } = (await (await contexts[3]!.get(`${base()}/api/v1/courses`)).json()) as {
    courses: { id: string; code: string; section: string; term: { name: string } }[]
  }
  const ids = {
    NOBODY: nobodys,
    OLD: courses.find(course => course.code === 'HYD 240' && course.term.name === 'Autumn 2026')!.id,
    SHELL: courses.find(
      course => course.code === 'HYD 240' && course.section === '02' && course.term.name === 'Spring 2027',
    )!.id,
  }
  const fill = (text: string): string =>
    text.replace(/OLD|SHELL|NOBODY/g, name => ids[name as keyof typeof ids])
  for (const [what, body, ...expected] of matrix) {
    const [method, path] = what.split(' ') as [string, string]
    const statuses = []
    for (const context of contexts)
      statuses.push(
        (
          await context.fetch(`${base()}/api/v1${fill(path)}`, {
            method,
            headers: { 'if-match': '"0"' },
            data: body === null ? undefined : (JSON.parse(fill(JSON.stringify(body))) as object),
          })
        ).status(),
      )
    expect(statuses, what).toEqual(expected)
  }
  // The places that the plans in place hold go with them.
  for (const context of [contexts[0]!, contexts[3]!])
    for (const plan of (
      (await (await context.get(`${base()}/api/v1/plans`)).json()) as {
        plans: { id: string; mode: string; state: string }[]
      }
    ).plans)
      if (plan.mode === 'in-place' && plan.state === 'draft')
        await context.delete(`${base()}/api/v1/plans/${plan.id}`)
})

test('a request from another site changes nothing', async () => {
  const context = await request.newContext({ extraHTTPHeaders: { origin: 'https://elsewhere.example' } })
  const answer = await context.post(`${base()}/api/v1/session`, {
    data: { login: 'marchetti', password: 'slack-water' },
  })
  expect([answer.status(), answer.headers()['content-type']]).toEqual([403, 'application/problem+json'])
})

test('pages carry a policy that lets nothing in from outside and no script without its mark', async ({
  page,
}) => {
  const answer = await page.goto(`${base()}/sign-in`)
  const policy = answer!.headers()['content-security-policy']!
  expect(policy).toContain(`default-src 'none'`)
  expect(policy).toMatch(/script-src 'self' 'nonce-[\w+/=]+';/)
  expect(policy).not.toMatch(/script-src[^;]*unsafe/)
})
