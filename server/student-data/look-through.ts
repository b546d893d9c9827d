import type { Knex } from 'knex'
import type { OutlineNode } from '../../core/course/outline'
import { similarityOf } from '../../core/student-data/similarity'
import { jsonSegments } from '../../core/student-data/traces/clean'
import {
  traceSearch,
  type SearchedPeople,
  type SearchedThing,
  type TraceSearch,
} from '../../core/student-data/traces/find'
import { segment } from '../../core/student-data/traces/markup'
import { lineSegments } from '../../core/student-data/traces/readers/texts'
import { endingOf, portable, readerFor } from '../../core/student-data/traces/readers'
import type { Looked, Trace } from '../../core/student-data/traces/trace'
import type { CarrySide } from '../../core/plan/compile'
import { loadBodies, readTexts, type TracedItem } from './traces.queries'

const MiB = 1024 * 1024
/** A larger body is a recording or the like; so much is held of others at once. */
const bodyAtMost = 32 * MiB
const heldAtMost = 24 * MiB
const batchAtMost = 200
const unreadable = 'It could not be read: it is damaged or locked.'

type SearchedNode = Pick<OutlineNode, 'lineage' | 'type' | 'title' | 'kind' | 'body' | 'size'>
/** What of a course is looked through. */
export type SearchedContent = Pick<CarrySide, 'categories' | 'rubrics' | 'groups' | 'furniture'> & {
  readonly nodes: readonly SearchedNode[]
}
/** A source as it is searched: what it brings, under the keys of the plan, and its items beyond their outline. */
export interface SearchedSide {
  readonly side: SearchedContent
  readonly items: ReadonlyMap<string, Pick<TracedItem, 'media_type' | 'settings'>>
  /** The key of an item in its own course, where the plan has another for it. */
  readonly keyIn: (lineage: string) => string
}
interface Body {
  readonly thing: SearchedThing
  readonly hash: string
  readonly size: number
  readonly mediaType: string
}
interface Counted {
  one: string
  many: string
  count: number
}

/**
 * Searches all that some sources bring for their students. What was looked through is counted, what could not be is named.
 * `known`: hashes of bodies of which it is known what stands in them.
 */
export async function lookThrough(
  db: Knex,
  sides: readonly SearchedSide[],
  people: SearchedPeople,
  known: ReadonlySet<string> = new Set(),
): Promise<{ found: Trace[]; looked: Looked }> {
  const search = traceSearch(people)
  const counts = new Map<string, Counted>()
  const count = (words: readonly [string, string], by = 1): void => {
    const there = counts.get(words[1]) ?? { one: words[0], many: words[1], count: 0 }
    counts.set(words[1], { ...there, count: there.count + by })
  }
  const notLooked: Looked['notLooked'] = []
  const bodies = sides
    .flatMap((each, at) => lookAtRows(search, each, at, count))
    .filter(({ hash }) => !known.has(hash))
  await lookAtBodies(db, search, bodies, { count, notLooked })
  const { traces, passedOver } = search.result()
  return {
    found: traces,
    looked: {
      things: [...counts.values()],
      students: people.students.length,
      similarity: sides.flatMap(({ side, items, keyIn }) =>
        side.nodes.filter(({ lineage }) => similarityOf(items.get(keyIn(lineage))?.settings ?? {}) !== null),
      ).length,
      alsoHere: people.students.filter(({ id }) => people.alsoHere.has(id)).length,
      passedOver,
      notLooked,
    },
  }
}
type Count = (words: readonly [string, string], by?: number) => void

/** Titles, settings and what stands around the units. Answers the bodies that are to be read. */
function lookAtRows(
  search: TraceSearch,
  { side, items, keyIn }: SearchedSide,
  at: number,
  count: Count,
): Body[] {
  const bodies: Body[] = []
  const look = (thing: SearchedThing, ...segments: ReturnType<typeof segment>[]): void =>
    search.look(thing, { segments, isTable: false, canWrite: true })
  for (const { lineage: on, type, title, kind, body, size } of side.nodes) {
    const thing: SearchedThing = { on, entity: type, side: at, title, itemKind: kind }
    const item = items.get(keyIn(on))
    look(thing, segment('title', title), ...jsonSegments(item?.settings ?? {}))
    if (body !== null && item) bodies.push({ thing, hash: body, size, mediaType: item.media_type ?? '' })
  }
  const around = { side: at, itemKind: null }
  for (const { lineage: on, title } of side.categories)
    look({ ...around, on, entity: 'category', title }, segment('title', title))
  for (const rubric of side.rubrics) {
    const { lineage: on, title } = rubric
    const criteria = 'criteria' in rubric ? rubric.criteria : []
    look(
      { ...around, on, entity: 'rubric', title },
      segment('title', title),
      ...jsonSegments(criteria, 'details'),
    )
  }
  for (const { lineage: on, title } of side.groups)
    look({ ...around, on, entity: 'group', title }, segment('title', title))
  for (const { lineage: on, title, details } of side.furniture)
    look(
      { ...around, on, entity: 'furnishing', title },
      segment('title', title),
      ...jsonSegments(details, 'details'),
    )
  count(
    ['title', 'titles'],
    side.nodes.length + side.categories.length + side.rubrics.length + side.furniture.length,
  )
  return bodies
}

interface Told {
  readonly count: Count
  readonly notLooked: Looked['notLooked']
}
async function lookAtBodies(
  db: Knex,
  search: TraceSearch,
  bodies: readonly Body[],
  told: Told,
): Promise<void> {
  const isPdf = ({ mediaType, thing }: Body): boolean => portable.fits(mediaType, endingOf(thing.title))
  const read = bodies.filter(body => {
    if (isPdf(body)) return false
    if (!readerFor(body.mediaType, body.thing.title)) {
      told.notLooked.push({ title: body.thing.title, why: 'Northtide cannot read this kind of file.' })
      return false
    }
    if (body.size <= bodyAtMost) return true
    told.notLooked.push({ title: body.thing.title, why: 'It is larger than 32 MB.' })
    return false
  })
  for (const some of batchesOf(read)) {
    const loaded = await loadBodies(db, [...new Set(some.map(({ hash }) => hash))])
    for (const body of some) lookAtBody(search, body, loaded.get(body.hash), told)
  }
  const pdfs = bodies.filter(isPdf)
  const texts = await readTexts(db, [...new Set(pdfs.map(({ hash }) => hash))])
  for (const { thing, hash } of pdfs) {
    const text = texts.get(hash)
    if (text === undefined) told.notLooked.push({ title: thing.title, why: 'No text could be read in it.' })
    else {
      told.count(portable.words)
      search.look(thing, { segments: lineSegments(text), isTable: false, canWrite: false })
    }
  }
}
function lookAtBody(
  search: TraceSearch,
  { thing, mediaType }: Body,
  bytes: Buffer | undefined,
  { count, notLooked }: Told,
): void {
  const reader = readerFor(mediaType, thing.title)
  if (!reader || !bytes) return
  try {
    const { parts, write } = reader.open(bytes, thing.title)
    const segments = parts.flatMap(part => part.segments)
    search.look(thing, { segments, isTable: reader.isTable, canWrite: write !== null })
    count(wordsOf(thing, mediaType) ?? reader.words)
  } catch {
    notLooked.push({ title: thing.title, why: unreadable })
  }
}
/** Questions are told as what they are, not as the XML that they are written in. */
const wordsOf = ({ itemKind }: SearchedThing, mediaType: string): readonly [string, string] | null =>
  mediaType === 'application/xml' && (itemKind === 'quiz' || itemKind === 'bank') ? ['quiz', 'quizzes'] : null

function* batchesOf(bodies: readonly Body[]): Generator<Body[]> {
  let batch: Body[] = []
  let size = 0
  for (const body of bodies) {
    if (batch.length > 0 && (size + body.size > heldAtMost || batch.length >= batchAtMost)) {
      yield batch
      batch = []
      size = 0
    }
    batch.push(body)
    size += body.size
  }
  if (batch.length > 0) yield batch
}
