import document from '../../docs/openapi.json'
import { must, type Attack, type Role, type World } from './world'

interface Operation {
  security?: unknown[]
}
const routes = Object.entries<Record<string, Operation>>(
  document.paths as unknown as Record<string, Record<string, Operation>>,
).flatMap(([path, operations]) =>
  Object.keys(operations).map(method => ({ path, method: method.toUpperCase() })),
)
const roles: Role[] = ['instructor', 'assistant', 'coordinator', 'office', 'stranger']
const open = [
  '/api/v1/health',
  '/api/v1/ready',
  '/api/v1/session',
  '/api/v1/invitations',
  '/api/v1/invitations/password',
]
const withIds = (path: string, id: string): string => path.replace(/\{\w+\}/g, id)

/** A course of the old content, shared by a code. */
async function shareCode(world: World, withheld: string[] = []): Promise<{ code: string; share: string }> {
  const made = await world.ask('instructor', 'POST', `/api/v1/courses/${world.ids.OLD}/shares`, {
    body: { withheld, days: 30, org: null },
  })
  const { id, code } = made.json() as { id: string; code: string }
  return { code, share: id }
}
/** A shell of the stranger's own department. */
async function strangersShell({ db }: World): Promise<string> {
  const row = await db('people').where({ login: 'stranger' }).first('id')
  const there = await db('courses').where({ source_id: 'attack-shell' }).first('id')
  if (there) return there.id
  const org = '0199dddd-0000-7000-8000-000000000001'
  await db('orgs').insert({
    id: org,
    source_id: 'org-attack',
    name: 'Department of Attacks',
    type: 'department',
    parent_source_id: 'org-port-ellery',
  })
  const term = await db('terms').where({ code: '2027-spring' }).first('id')
  const id = '0199dddd-0000-7000-8000-000000000002'
  await db('courses').insert({
    id,
    source_id: 'attack-shell',
    term_id: term?.id ?? '',
    org_id: org,
    code: 'ATK 101',
    section: '01',
    title: 'Attacks',
    created_at: '2026-12-01 00:00:00',
  })
  await db('enrolments').insert({
    id,
    course_id: id,
    person_id: row?.id ?? '',
    role: 'instructor',
    origin: 'registrar',
  })
  return id
}

export const doors: Attack[] = [
  {
    name: 'every route, signed in as nobody',
    quick: true,
    run: async world => {
      for (const { path, method } of routes) {
        if (open.includes(path)) continue
        const { status } = await world.ask(null, method, withIds(path, world.ids.OLD), {
          body: ['POST', 'PUT'].includes(method) ? {} : undefined,
        })
        must(status === 401, `${method} ${path} answered ${status}`)
      }
      return `${routes.length} routes, each 401`
    },
  },
  {
    name: 'every route with the ids of others, and with none there, as each of five roles',
    quick: true,
    run: async world => {
      let asked = 0
      for (const role of roles)
        for (const { path, method } of routes) {
          if (path.startsWith('/api/v1/session') || path.startsWith('/api/v1/you/sign-ins')) continue
          for (const id of path.includes('{') ? [world.ids.NOBODY, 'x'.repeat(36), '%00'] : ['']) {
            const { status, text } = await world.ask(role, method, withIds(path, id), {
              body: ['POST', 'PUT'].includes(method) ? {} : undefined,
            })
            asked++
            must(status < 500, `${method} ${path} with ${id} as ${role}: ${status} ${text.slice(0, 200)}`)
            if (path.includes('{')) must(status >= 400, `${method} ${path} with ${id} as ${role}: ${status}`)
          }
        }
      return `${asked} requests, none answered with a fault`
    },
  },
  {
    name: 'what belongs to one is asked for by another (courses, plans, runs, files, people)',
    quick: true,
    run: async world => {
      const { OLD, SHELL } = world.ids
      const plan = await world.ask('instructor', 'POST', '/api/v1/plans', {
        body: { sources: [OLD], target: SHELL },
      })
      const { id } = plan.json() as { id: string }
      const upload = await world.ask('instructor', 'POST', '/api/v1/uploads?name=a.csv', {
        body: 'a,b\n1,2\n',
        headers: { 'content-type': 'application/octet-stream' },
      })
      const file = (upload.json() as { id: string }).id
      const tries: [string, string, unknown?][] = [
        ['GET', `/api/v1/courses/${OLD}`],
        ['GET', `/api/v1/courses/${OLD}/dates.csv`],
        ['GET', `/api/v1/courses/${OLD}/package`],
        ['GET', `/api/v1/courses/${OLD}/staff`],
        ['POST', `/api/v1/courses/${OLD}/shares`, { withheld: [], days: 1, org: null }],
        ['POST', `/api/v1/courses/${OLD}/template`, {}],
        ['GET', `/api/v1/plans/${id}`],
        ['PUT', `/api/v1/plans/${id}`, {}],
        ['DELETE', `/api/v1/plans/${id}`],
        ['GET', `/api/v1/plans/${id}/effect`],
        ['POST', `/api/v1/plans/${id}/run`, { fingerprint: 'x' }],
        ['GET', `/api/v1/uploads/${file}`],
        ['DELETE', `/api/v1/uploads/${file}`],
        ['POST', `/api/v1/uploads/${file}/import`, { as: 'roster' }],
        ['GET', `/api/v1/people`],
        ['PUT', `/api/v1/codes`, { patterns: [], mapped: [] }],
      ]
      for (const [method, path, body] of tries) {
        const { status } = await world.ask('stranger', method, path, { body, headers: { 'if-match': '"0"' } })
        must([403, 404].includes(status), `${method} ${path} answered a stranger ${status}`)
      }
      return `${tries.length} requests of a stranger, each 403 or 404`
    },
  },
  {
    name: 'a right is taken away half-way, then each thing begun with it is tried',
    quick: true,
    run: async world => {
      const { OLD, NOBODY } = world.ids
      const own = await strangersShell(world)
      const cookie = await world.signIn('stranger', 'not a real one at all')
      const as = (method: string, path: string, body?: unknown) =>
        world.ask(null, method, path, { body, cookie })
      const { code, share } = await shareCode(world)
      must((await as('POST', '/api/v1/shares', { code })).status === 200, 'the code did not open the course')
      const course = (await as('GET', `/api/v1/courses/${OLD}`)).json() as {
        nodes: { lineage: string; kind: string | null }[]
      }
      const page = course.nodes.find(node => node.kind === 'page')?.lineage ?? NOBODY
      const file = course.nodes.find(node => node.kind === 'file')?.lineage ?? NOBODY
      const begun = await as('POST', '/api/v1/plans', { sources: [OLD], target: own })
      const { id } = begun.json() as { id: string }
      const { fingerprint } = (await as('GET', `/api/v1/plans/${id}/effect`)).json() as {
        fingerprint: string
      }
      await world.ask('instructor', 'DELETE', `/api/v1/courses/${OLD}/shares/${share}`)
      const after: [string, string, number[], unknown?][] = [
        ['GET', `/api/v1/courses/${OLD}`, [404]],
        ['GET', `/api/v1/courses/${OLD}/items/${page}`, [404]],
        ['GET', `/api/v1/courses/${OLD}/items/${file}/body`, [404]],
        ['GET', `/api/v1/plans/${id}/effect`, [403]],
        ['GET', `/api/v1/plans/${id}/dates.csv`, [403]],
        ['POST', `/api/v1/plans/${id}/sheet`, [403], { Key: 'Due' }],
        ['POST', `/api/v1/plans/${id}/run`, [403], { fingerprint }],
        ['POST', `/api/v1/courses/${OLD}/template`, [404], {}],
        ['POST', '/api/v1/plans', [404], { sources: [OLD], target: own }],
        ['POST', '/api/v1/shares', [400], { code }],
      ]
      for (const [method, path, expected, body] of after) {
        const { status } = await as(method, path, body)
        must(expected.includes(status), `after the share was taken back ${method} ${path} answered ${status}`)
      }
      // The enrolment itself goes: the registrar does not list the person any more.
      const mine: [string, string, unknown?][] = [
        ['GET', `/api/v1/courses/${own}`],
        ['GET', `/api/v1/plans/${id}`],
        ['DELETE', `/api/v1/plans/${id}`],
        ['POST', `/api/v1/plans/${id}/run`, { fingerprint }],
      ]
      await world.db('enrolments').where({ course_id: own }).update({ missing_since: '2027-01-01 00:00:00' })
      for (const [method, path, body] of mine) {
        const { status } = await as(method, path, body)
        must(status === 404, `not listed any more, ${method} ${path} answered ${status}`)
      }
      await world.db('enrolments').where({ course_id: own }).update({ missing_since: null })
      must((await as('GET', `/api/v1/courses/${own}`)).status === 200, 'listed again, the course stayed shut')
      // The person: not active any more.
      await world.db('people').where({ login: 'stranger' }).update({ active: false })
      must((await as('GET', '/api/v1/shells')).status === 401, 'not active any more, the session went on')
      await world.db('people').where({ login: 'stranger' }).update({ active: true })
      return 'a share, an enrolment, a person: nothing begun went on'
    },
  },
  {
    name: 'a duty is taken away half-way',
    quick: true,
    run: async world => {
      const person = await world.db('people').where({ login: 'okonjo' }).first('id')
      const top = await world.db('orgs').where({ source_id: 'org-port-ellery' }).first('id')
      const duty = { org: top?.id, duty: 'office', holds: true }
      const change = (holds: boolean) =>
        world.ask('office', 'PUT', `/api/v1/people/${person?.id}/duties`, { body: { ...duty, holds } })
      must((await change(true)).status === 200, 'the duty was not given')
      const cookie = await world.signIn('okonjo', 'neap-tide')
      const tries: [string, string, unknown?][] = [
        ['GET', '/api/v1/people'],
        ['PUT', `/api/v1/people/${person?.id}/duties`, duty],
        ['POST', `/api/v1/people/${person?.id}/invitation`, {}],
      ]
      must(
        (await world.ask(null, 'GET', '/api/v1/people', { cookie })).status === 200,
        'the duty gave nothing',
      )
      await change(false)
      for (const [method, path, body] of tries) {
        const { status } = await world.ask(null, method, path, { body, cookie })
        must(status === 403, `without the duty ${method} ${path} answered ${status}`)
      }
      return 'people, duties, invitations: 403 each'
    },
  },
  {
    name: 'a form on another site sends a signed-in person’s cookie along',
    quick: true,
    run: async world => {
      const headers: Record<string, string>[] = [
        { origin: 'https://elsewhere.example' },
        { origin: 'null' },
        { 'sec-fetch-site': 'cross-site' },
        { 'sec-fetch-site': 'same-site' },
      ]
      for (const forged of headers)
        for (const { path, method } of routes.filter(route => !['GET'].includes(route.method))) {
          const { status } = await world.ask('office', method, withIds(path, world.ids.OLD), {
            body: ['POST', 'PUT'].includes(method) ? {} : undefined,
            headers: forged,
          })
          must(status === 403, `${method} ${path} took ${JSON.stringify(forged)}: ${status}`)
        }
      return `${headers.length} forgeries on every changing route, each 403`
    },
  },
  {
    name: 'SQL and wildcards in whatever is searched',
    quick: true,
    run: async world => {
      const probes = [
        `' OR 1=1 -- `,
        `"; DROP TABLE items; --`,
        `\\`,
        `%`,
        `_`,
        `' UNION SELECT password FROM people -- `,
        '\0',
        '\u{1F30A}',
      ]
      const paths = [
        '/api/v1/log?q=',
        '/api/v1/people?q=',
        '/api/v1/courses?q=',
        '/api/v1/shells?q=',
        '/api/v1/uploads?name=',
      ]
      for (const path of paths)
        for (const probe of probes) {
          const { status, text } = await world.ask('office', 'GET', path + encodeURIComponent(probe))
          must(status < 500, `${path}${probe}: ${status}`)
          must(!text.includes('scrypt$'), `${path}${probe} told a password`)
        }
      const body = {
        term: '2027-spring',
        code: `X'; --`,
        section: '',
        title: `Tides'); DROP TABLE items; #`,
      }
      const made = await world.ask('instructor', 'POST', '/api/v1/courses', { body })
      must(made.status === 200, `a course was told ${made.text.slice(0, 300)}`)
      must((await world.db('items').first('lineage')) !== undefined, 'the items are gone')
      return `${paths.length * probes.length} searches and a title, all taken as text`
    },
  },
]
