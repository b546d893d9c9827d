// npm run bench:traces : last term's students looked for in a course of 20 000 items with 40 MB of text, for a roster of 300. Beside it, in
// the same run, the same bytes only read from the database, so that the figure says what the search costs.
import { performance } from 'node:perf_hooks'
import { present } from '../core/present'
import { hashOf, storeBodies } from '../server/courses/bodies.queries'
import { loadCarrySide } from '../server/courses/carry-side'
import { connect, migrate } from '../server/db/connection'
import { inBatches, newId } from '../server/db/rows'
import { lookThrough } from '../server/student-data/look-through'
import { loadBodies, peopleIn, tracedItems } from '../server/student-data/traces.queries'
import { fillWithDemo, freshDatabase, useServer } from '../tests/support/database'
import { word } from './words'

const itemsMade = 20_000
const bytesEach = 2100
const students = 300
const rounds = 3
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
/** Every fiftieth page names a student; names are made of the words of the course, as names are. */
function pageOf(n: number, names: readonly string[]): string {
  let text = n % 50 === 0 ? `<p>Ask ${present(names[n % names.length])}.</p>` : ''
  while (text.length < bytesEach) {
    const sentence = Array.from({ length: 12 }, word).join(' ')
    text += `<p class="x">${capital(sentence)} <b>${word()}</b> &amp; <a href="#${word()}">${word()}</a>.</p>\n`
  }
  return text
}

const stopServer = useServer()
const db = connect(await freshDatabase('northtide_bench_traces'))
try {
  await migrate(db)
  await fillWithDemo(db, 'northtide_bench_traces')
  const template = present(await db('courses').where({ source_id: 'hyd240-01-2026a' }).first())
  const courseId = newId()
  await db('courses').insert({ ...template, id: courseId, source_id: 'bench-traces', code: 'BEN 1' })
  const people = Array.from({ length: students }, (_, n) => ({
    id: newId(),
    source_id: `bt-2026-${String(n).padStart(4, '0')}`,
    given_name: capital(word()),
    family_name: capital(`${word()}${word()}`),
    email: `student${n}@port-ellery.example`,
    active: true,
  }))
  for (const batch of inBatches(people)) await db('people').insert(batch)
  const enrolled = people.map(({ id }) => ({
    id: newId(),
    course_id: courseId,
    person_id: id,
    role: 'student' as const,
    origin: 'registrar' as const,
    is_primary: false,
    may_run: false,
  }))
  for (const batch of inBatches(enrolled)) await db('enrolments').insert(batch)
  const names = people.map(({ given_name, family_name }) => `${given_name} ${family_name}`)
  let bytes = 0
  for (let from = 0; from < itemsMade; from += 500) {
    const bodies = Array.from({ length: 500 }, (_, n) => Buffer.from(pageOf(from + n, names)))
    bytes += bodies.reduce((sum, body) => sum + body.length, 0)
    await storeBodies(db, bodies)
    await db('items').insert(
      bodies.map((body, n) => ({
        course_id: courseId,
        lineage: newId(),
        parent_lineage: null,
        position: from + n,
        kind: 'page' as const,
        title: capital(word()),
        state: 'visible' as const,
        exam: false,
        settings: '{}' as never,
        releases: '[]' as never,
        body_hash: hashOf(body),
        media_type: 'text/html',
      })),
    )
  }
  const roster = await peopleIn(db, [courseId], ['student'])
  const side = await loadCarrySide(db, courseId)
  const seconds = async (work: () => Promise<unknown>): Promise<number> => {
    const times: number[] = []
    for (let round = 0; round < rounds; round++) {
      const start = performance.now()
      await work()
      times.push(performance.now() - start)
    }
    return present(times.sort((a, b) => a - b)[rounds >> 1]) / 1000
  }
  let found = 0
  const searched = await seconds(async () => {
    const items = await tracedItems(db, courseId)
    const result = await lookThrough(db, [{ side, items, keyIn: key => key }], {
      students: roster,
      staff: [],
      alsoHere: new Set(),
      keyOf: null,
    })
    found = result.found.filter(trace => trace.weight === 'sure').length
  })
  const hashes = side.nodes.flatMap(({ body }) => body ?? [])
  const read = await seconds(async () => {
    for (let at = 0; at < hashes.length; at += 200) await loadBodies(db, hashes.slice(at, at + 200))
  })
  const figure = (n: number): string => n.toFixed(2)
  console.log(`${itemsMade} items, ${(bytes / 1e6).toFixed(1)} MB of text, ${roster.length} students`)
  console.log(`${found} of ${itemsMade / 50} planted names found`)
  console.log(
    `searched in ${figure(searched)} s, of which ${figure(read)} s is reading; medians of ${rounds}`,
  )
} finally {
  await db.destroy()
  await stopServer()
}
