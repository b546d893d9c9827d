// npm run bench:search : finding items by their words among 5 000 courses, for an instructor of a few and for the office of all. Beside it, in
// the same run, the same words looked for in titles and texts without an index.
import { performance } from 'node:perf_hooks'
import { booleanQuery } from '../core/prose/search'
import { present } from '../core/present'
import { hashOf, storeBodies } from '../server/courses/bodies.queries'
import { connect, migrate } from '../server/db/connection'
import { inBatches, newId, selectRows } from '../server/db/rows'
import { findPerson } from '../server/people/people.queries'
import { keepSearchable } from '../server/search/index.queries'
import { ownText } from '../server/search/plain-text'
import { search } from '../server/search/search'
import { fillWithDemo, freshDatabase, useServer } from '../tests/support/database'
import { random, vocabulary, word } from './words'

const distinct = 500
const terms = 10
const itemsEach = 40
/** Of each course so many items are rewritten from one term to the next: the rest is rolled as it was. */
const rewritten = 3
const sentence = (length: number): string => Array.from({ length }, word).join(' ')

const stopServer = useServer()
const db = connect(await freshDatabase('northtide_bench_search'))
try {
  await migrate(db)
  await fillWithDemo(db, 'northtide_bench_search')
  const template = present(await db('courses').where({ source_id: 'hyd240-01-2026a' }).first())
  const login = async (name: string) =>
    present(await findPerson(db, (await db('people').where({ login: name }).first('id'))?.id ?? ''))
  const [instructor, office] = [await login('marchetti'), await login('ellwood')]
  const began = performance.now()
  for (let course = 0; course < distinct; course++) {
    const items = Array.from({ length: itemsEach }, () => ({
      title: sentence(4),
      text: `<p>${sentence(120)}</p>`,
    }))
    for (let term = 0; term < terms; term++) {
      for (let n = 0; term > 0 && n < rewritten; n++)
        items[Math.floor(random() * itemsEach)] = { title: sentence(4), text: `<p>${sentence(120)}</p>` }
      const id = newId()
      const bodies = items.map(({ text }) => Buffer.from(text))
      await storeBodies(db, bodies)
      await db('courses').insert({
        ...template,
        id,
        source_id: `bench-${course}-${term}`,
        code: `BEN ${course}`,
      })
      const rows = items.map(({ title }, position) => ({
        course_id: id,
        lineage: newId(),
        parent_lineage: null,
        position,
        kind: 'page' as const,
        title,
        state: 'visible' as const,
        exam: false,
        settings: '{}' as never,
        releases: '[]' as never,
        body_hash: hashOf(present(bodies[position])),
        media_type: 'text/html',
      }))
      for (const batch of inBatches(rows)) await db('items').insert(batch)
      await keepSearchable(db, id, ownText)
    }
  }
  const seconds = Math.round((performance.now() - began) / 1000)
  const [{ texts }] = (await db('searched').count({ texts: '*' })) as [{ texts: number }]
  const [{ items }] = (await db('items').count({ items: '*' })) as [{ items: number }]
  console.log(
    `${distinct * terms} courses, ${items} items, ${texts} different texts; made ready to be searched in ${seconds} s with all else`,
  )
  const middle = (values: number[]): number => present([...values].sort((a, b) => a - b)[values.length >> 1])
  const rounds = 15
  const time = async (work: (words: string) => Promise<unknown>, asked: () => string): Promise<string> => {
    const times: number[] = []
    for (let round = 0; round < rounds; round++) {
      const words = asked()
      const start = performance.now()
      await work(words)
      times.push(performance.now() - start)
    }
    return `${middle(times).toFixed(0)} ms (worst ${Math.max(...times).toFixed(0)} ms)`
  }
  const rare = (): string => `${vocabulary[3000 + Math.floor(random() * 1000)]}`
  const two = (): string => `${word()} ${rare()}`
  const frequent = (): string => `${vocabulary[30 + Math.floor(random() * 60)]}`
  const everywhere = (): string => `${vocabulary[0]}`
  for (const [name, asked] of Object.entries({
    'a rare word': rare,
    'two words': two,
    'a frequent word': frequent,
    'a word that nearly every text has': everywhere,
  })) {
    const own = await time(words => search(db, instructor, { q: words }), asked)
    const all = await time(words => search(db, office, { q: words }), asked)
    const plain = await time(
      words =>
        selectRows(
          db,
          `SELECT s.id FROM searched s WHERE ${booleanQuery(words)
            ?.split(' ')
            .map(each => `CONCAT(s.title, ' ', s.text) LIKE '%${each.slice(1, -1)}%'`)
            .join(' AND ')} LIMIT 31`,
          {},
        ),
      asked,
    )
    console.log(`${name}: an instructor ${own}, the office ${all}; without an index ${plain}`)
  }
} finally {
  await db.destroy()
  stopServer()
}
