import document from '../../docs/openapi.json'
import { must, type Attack } from './world'

const paths = Object.entries<object>(document.paths)
const always = [
  'x-content-type-options',
  'referrer-policy',
  'cross-origin-opener-policy',
  'cross-origin-resource-policy',
  'cross-origin-embedder-policy',
  'content-security-policy',
]
export const http: Attack[] = [
  {
    name: 'every address with the methods that it does not have',
    quick: true,
    run: async world => {
      let asked = 0
      for (const [path, operations] of paths)
        for (const method of ['GET', 'POST', 'PUT', 'DELETE', 'PATCH']) {
          if (method.toLowerCase() in operations) continue
          const { status, headers } = await world.ask(
            'office',
            method,
            path.replace(/\{\w+\}/g, world.ids.OLD),
          )
          asked++
          must(status === 405 && Boolean(headers.get('allow')), `${method} ${path} was told ${status}`)
        }
      for (const path of ['/api', '/api/x', '/api/v1', '/api/v2/health', '/api/v1/nothing'])
        must((await world.ask('office', 'GET', path)).status === 404, `${path} is not a 404`)
      return `${asked} requests, each 405 with Allow`
    },
  },
  {
    name: 'the fields of every kind of answer',
    quick: true,
    run: async world => {
      const file = await world.db('items').where({ course_id: world.ids.OLD, kind: 'file' }).first('lineage')
      const kinds: [string, string, number][] = [
        ['a page', '/', 200],
        ['the API', '/api/v1/session', 200],
        ['a refusal', '/api/v1/courses/x', 400],
        ['no address', '/api/v1/nothing', 404],
        ['a file', `/api/v1/courses/${world.ids.OLD}/items/${file?.lineage}/body`, 200],
      ]
      for (const [what, path, expected] of kinds) {
        const { status, headers } = await world.ask('office', 'GET', path)
        must(status === expected, `${what} was told ${status}`)
        for (const name of always) must(headers.has(name), `${what} has no ${name}`)
        must(!headers.has('x-powered-by') && !headers.has('server'), `${what} says what it runs on`)
      }
      const mark = await world.ask(null, 'GET', '/mark.svg')
      must(mark.headers.get('x-content-type-options') === 'nosniff', 'a picture of ours has no nosniff')
      return `${kinds.length} kinds of answers, ${always.length} fields each`
    },
  },
  {
    name: 'files in part: ranges, entity tags, and ranges that make no sense',
    quick: true,
    run: async world => {
      const file = await world.db('items').where({ course_id: world.ids.OLD, kind: 'file' }).first('lineage')
      const path = `/api/v1/courses/${world.ids.OLD}/items/${file?.lineage}/body`
      const get = (headers: Record<string, string>, method = 'GET') =>
        world.ask('instructor', method, path, { headers })
      const whole = await get({})
      const tag = whole.headers.get('etag') ?? ''
      const size = Number(whole.headers.get('content-length'))
      must(size > 10, 'the file says no size')
      const part = await get({ range: 'bytes=0-4' })
      must(
        part.status === 206 && part.headers.get('content-range') === `bytes 0-4/${size}`,
        `a part was told ${part.status}`,
      )
      must((await get({ 'if-none-match': tag })).status === 304, 'what is there already came again')
      must((await get({ range: `bytes=${size}-` })).status === 416, 'what is not in it was not refused')
      must((await get({ range: 'bytes=5-1,0-' })).status === 200, 'nonsense was not passed over')
      must(
        (await get({ range: 'bytes=0-4', 'if-range': '"other"' })).status === 200,
        'a part of another file came',
      )
      const head = await get({}, 'HEAD')
      must(
        head.status === 200 && head.headers.get('content-length') === String(size),
        'HEAD has other fields',
      )
      return '206, 304, 416 as RFC 9110 has them'
    },
  },
  {
    name: 'paths that climb, and addresses that are no text',
    quick: true,
    run: async world => {
      const climbing = [
        '/..%2f..%2f..%2fetc%2fpasswd',
        '/_nuxt/..%2f..%2fserver%2findex.mjs',
        '/%2e%2e/%2e%2e/package.json',
        '/api/v1/..%2f..%2fetc%2fpasswd',
        '/%c0%ae%c0%ae/',
        '/api/v1/courses/%ff',
      ]
      for (const path of climbing) {
        const { status, text } = await world.ask('instructor', 'GET', path)
        must(
          status < 500 && !/root:|"dependencies"|import\s*\{/.test(text),
          `${path} gave ${text.slice(0, 60)}`,
        )
      }
      return `${climbing.length} addresses, none gave a file`
    },
  },
]
