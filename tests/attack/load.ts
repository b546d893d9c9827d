import { request } from 'node:http'
import { connect as openSocket } from 'node:net'
import { must, uploadLimit, type Attack, type World } from './world'
import { zipOfFiles, manifestOf, resourceXml, itemXml } from '../support/archives'

const mib = 1024 * 1024
/** Sends so many MiB in pieces, without saying how many there are; answers the status, or null where the connection was closed. */
const sendChunked = (world: World, path: string, size: number): Promise<number | null> =>
  new Promise(resolve => {
    const sent = request(
      world.url + path,
      {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie: world.cookies.instructor },
      },
      answer => {
        answer.resume()
        resolve(answer.statusCode ?? null)
      },
    )
    sent.on('error', () => resolve(null))
    const piece = Buffer.alloc(mib, 0x20)
    let left = size
    const go = (): void => {
      while (left-- > 0)
        if (!sent.write(piece)) {
          sent.once('drain', go)
          return
        }
      sent.end()
    }
    go()
  })
/** Does something while others ask; answers how often they were answered before it ended. */
async function meanwhile<T>(world: World, work: () => Promise<T>): Promise<{ result: T; served: number }> {
  let ended = false
  let served = 0
  const working = work().finally(() => {
    ended = true
  })
  // Where others are not answered that is what is told.
  working.catch(() => {})
  while (!ended) {
    const { status } = await world.ask('office', 'GET', '/api/v1/session')
    must(status === 200, `others were told ${status}`)
    if (!ended) served++
  }
  return { result: await working, served }
}
/** Brings a package with one page in as a course; answers the course and the page. */
async function keepPage(world: World, html: string, name: string): Promise<{ course: string; page: string }> {
  const packed = zipOfFiles({
    'imsmanifest.xml': manifestOf(itemXml('i1', name, '', 'r1'), resourceXml('r1', 'webcontent', 'p.html')),
    'p.html': html,
  })
  const upload = await world.ask('instructor', 'POST', `/api/v1/uploads?name=${name}.imscc`, {
    body: packed,
    headers: { 'content-type': 'application/octet-stream' },
  })
  must(upload.status === 200, `the package was told ${upload.status} ${upload.text.slice(0, 200)}`)
  const { id } = upload.json() as { id: string }
  const state = async (
    wanted: string,
  ): Promise<{ outcome: { courseId: string } | null; problem: string | null }> => {
    for (let attempt = 0; attempt < 400; attempt++) {
      const told = (await world.ask('instructor', 'GET', `/api/v1/uploads/${id}`)).json() as {
        state: string
        problem: string | null
        outcome: { courseId: string } | null
      }
      if (told.state === wanted || told.problem) return told
      await new Promise(resolve => setTimeout(resolve, 100))
    }
    throw new Error(`the package did not get to be ${wanted}`)
  }
  await state('read')
  await world.ask('instructor', 'POST', `/api/v1/uploads/${id}/import`, {
    body: { as: 'course', term: '2026-autumn', code: 'ATK 1', section: '', title: name },
  })
  const { outcome, problem } = await state('imported')
  must(outcome !== null, `the package was not kept: ${problem ?? ''}`)
  const course = (await world.ask('instructor', 'GET', `/api/v1/courses/${outcome.courseId}`)).json() as {
    nodes: { lineage: string; kind: string | null }[]
  }
  return { course: outcome.courseId, page: course.nodes.find(node => node.kind === 'page')?.lineage ?? '' }
}

export const load: Attack[] = [
  {
    name: 'bodies without a length, far over the limit',
    quick: true,
    run: async world => {
      const before = world.memory()
      const statuses = await Promise.all(
        ['/api/v1/plans', '/api/v1/plans', '/api/v1/uploads?name=x', '/api/v1/session'].map(path =>
          sendChunked(world, path, 96),
        ),
      )
      const grew = world.memory() - before
      must(
        statuses.every(status => status === null || status === 413 || status === 429),
        `told ${statuses.join(' ')}`,
      )
      must(
        grew < 4 * 96 * mib * 0.5,
        `it took ${Math.round(grew / mib)} MiB for ${4 * 96} MiB that were sent`,
      )
      return `384 MiB sent, ${Math.max(0, Math.round(grew / mib))} MiB more in use; told ${statuses.map(status => status ?? 'nothing').join(' ')}`
    },
  },
  {
    name: 'forty uploads at once, of which room is kept for four',
    quick: true,
    run: async world => {
      const body = 'x'.repeat(uploadLimit - 1024)
      const statuses = await Promise.all(
        Array.from({ length: 40 }, async (_, at) =>
          world
            .ask('assistant', 'POST', `/api/v1/uploads?name=u${at}.csv`, {
              body,
              headers: { 'content-type': 'application/octet-stream' },
            })
            .then(
              answer => answer.status,
              () => 0,
            ),
        ),
      )
      const [row] = await world
        .db('uploads')
        .join('people', 'people.id', 'uploads.person_id')
        .where({ login: 'okonjo' })
        .sum<{ bytes: string | null }[]>({ bytes: 'size' })
      const aside = Number(row?.bytes ?? 0)
      must(
        aside <= 4 * uploadLimit,
        `${Math.round(aside / mib)} MiB lie aside where ${(4 * uploadLimit) / mib} may`,
      )
      return `${statuses.filter(status => status === 200).length} taken, the others refused; ${Math.round(aside / mib)} MiB aside`
    },
  },
  {
    name: 'a page of 170 000 elements that are never closed, kept and read while others work',
    quick: false,
    run: async world => {
      const { result, served } = await meanwhile(world, async () => {
        const { course, page } = await keepPage(world, `<p>Deep</p>${'<x>'.repeat(170_000)}`, 'deep')
        return world.ask('instructor', 'GET', `/api/v1/courses/${course}/items/${page}`)
      })
      must(result.status === 200 && result.text.includes('Deep'), `the page was told ${result.status}`)
      must(served > 10, `only ${served} others were answered meanwhile`)
      return `read; ${served} others answered meanwhile`
    },
  },
  {
    name: 'the same page put where nothing was made of it yet, read by ten at once',
    quick: true,
    run: async world => {
      const item = await world
        .db('items')
        .where({ course_id: world.ids.OLD, kind: 'page' })
        .first('lineage', 'body_hash')
      const html = Buffer.from(`<p>Deep</p>${'<x><b><svg><form>'.repeat(30_000)}`)
      const hash = 'a'.repeat(64)
      await world.db('bodies').insert({ hash, size: html.length, created_at: '2027-01-01 00:00:00' })
      await world.db('body_parts').insert({ hash, part: 0, bytes: html })
      const where = { course_id: world.ids.OLD, lineage: item?.lineage ?? '' }
      await world.db('items').where(where).update({ body_hash: hash })
      const { result, served } = await meanwhile(world, () =>
        Promise.all(
          Array.from({ length: 10 }, () =>
            world.ask('instructor', 'GET', `/api/v1/courses/${world.ids.OLD}/items/${where.lineage}`),
          ),
        ),
      )
      must(
        result.every(answer => answer.status === 200 && answer.text.includes('Deep')),
        'it was not shown',
      )
      const kept = await world.db('readable_bodies').where({ hash })
      must(kept.length === 1, 'what was made of it was not kept')
      await world
        .db('items')
        .where(where)
        .update({ body_hash: item?.body_hash ?? null })
      return `shown ten times; ${served} others answered meanwhile`
    },
  },
  {
    name: 'a file of 60 MiB: its page, and ten downloads at once, whole and in part',
    quick: false,
    run: async world => {
      const item = await world.db('items').where({ course_id: world.ids.OLD, kind: 'file' }).first('lineage')
      const hash = 'b'.repeat(64)
      await world.db('bodies').insert({ hash, size: 60 * mib, created_at: '2027-01-01 00:00:00' })
      const bytes = Buffer.alloc(mib, 0x42)
      for (let part = 0; part < 60; part++) await world.db('body_parts').insert({ hash, part, bytes })
      await world
        .db('items')
        .where({ course_id: world.ids.OLD, lineage: item?.lineage ?? '' })
        .update({ body_hash: hash })
      const path = `/api/v1/courses/${world.ids.OLD}/items/${item?.lineage}`
      const before = world.memory()
      const shown = (await world.ask('instructor', 'GET', path)).json() as { file: { size: number } }
      must(shown.file.size === 60 * mib, `the page says ${shown.file.size} bytes`)
      const afterPage = world.memory() - before
      must(afterPage < 30 * mib, `its page took ${Math.round(afterPage / mib)} MiB`)
      const headers = { cookie: world.cookies.instructor }
      const sizes = await Promise.all(
        Array.from({ length: 10 }, async () => {
          const answer = await fetch(`${world.url}${path}/body`, { headers })
          let size = 0
          const reader = answer.body?.getReader()
          for (let part = await reader?.read(); part && !part.done; part = await reader?.read())
            size += part.value.length
          return size
        }),
      )
      must(
        sizes.every(size => size === 60 * mib),
        `it came with ${sizes.join(' ')} bytes`,
      )
      const grew = world.memory() - before
      must(grew < 300 * mib, `ten downloads took ${Math.round(grew / mib)} MiB`)
      return `600 MiB downloaded, ${Math.max(0, Math.round(grew / mib))} MiB more in use`
    },
  },
  {
    name: 'two hundred connections that say half a request and wait',
    quick: true,
    run: async world => {
      const { hostname, port } = new URL(world.url)
      const sockets = Array.from({ length: 200 }, () => {
        const socket = openSocket(Number(port), hostname)
        socket.on('error', () => {})
        socket.write('GET /api/v1/shells HTTP/1.1\r\nHost: x\r\nX-Slow: ')
        return socket
      })
      for (let at = 0; at < 10; at++) {
        const { status } = await world.ask('instructor', 'GET', '/api/v1/session')
        must(status === 200, `others were told ${status}`)
      }
      for (const socket of sockets) socket.destroy()
      return 'others answered all the while'
    },
  },
  {
    name: 'JSON of four million brackets, and one with a prototype in it',
    quick: true,
    run: async world => {
      const deep = await world.ask('instructor', 'POST', '/api/v1/plans', {
        body: '['.repeat(2_000_000) + ']'.repeat(2_000_000),
      })
      must(deep.status === 400, `brackets were told ${deep.status}`)
      const body = `{"__proto__":{"duties":["office"]},"constructor":{"prototype":{"polluted":1}},"sources":[],"target":"x"}`
      const odd = await world.ask('stranger', 'POST', '/api/v1/plans', { body })
      must(odd.status === 400, `a prototype was told ${odd.status}`)
      must((await world.ask('stranger', 'GET', '/api/v1/people')).status === 403, 'a prototype gave a duty')
      return '400 each'
    },
  },
  {
    name: 'one plan, one request and one course asked for twenty times at once',
    quick: true,
    run: async world => {
      const many = async (path: string, body: unknown): Promise<unknown[]> => {
        const answers = await Promise.all(
          Array.from({ length: 20 }, () => world.ask('instructor', 'POST', path, { body })),
        )
        for (const answer of answers) must(answer.status < 500, `${path} was told ${answer.status}`)
        return answers
          .filter(answer => answer.status === 200)
          .map(answer => (answer.json() as { id: string }).id)
      }
      const ids = await many('/api/v1/plans', { sources: [world.ids.OLD], target: world.ids.OTHER })
      must(new Set(ids).size === 1, `${new Set(ids).size} plans`)
      const asks = await many('/api/v1/requests', {
        term: '2027-spring',
        code: 'ATK 9',
        section: '',
        words: '',
      })
      must(asks.length === 1, `${asks.length} requests`)
      const made = await many('/api/v1/courses', {
        term: '2027-spring',
        code: 'ATK 7',
        section: '',
        title: 'Once',
      })
      must(new Set(made).size === 1, `${new Set(made).size} courses`)
      return 'one of each'
    },
  },
]
