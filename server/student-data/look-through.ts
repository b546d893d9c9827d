import type { Knex } from 'knex'
import type { OutlineNode } from '../../core/course/outline'
import { similarityOf } from '../../core/student-data/similarity'
import {
  traceSearch,
  type SearchedPart,
  type SearchedPeople,
  type SearchedThing,
  type TraceSearch,
} from '../../core/student-data/traces/find'
import {
  bodyPart,
  identifierPart,
  jsonParts,
  linePart,
  titlePart,
} from '../../core/student-data/traces/redact'
import { openBody } from '../../core/student-data/traces/readers/open'
import { lineageOf } from '../../core/course/lineage'
import { rulesOn } from '../../core/plan/grades'
import type { Looked, Trace } from '../../core/student-data/traces/trace'
import type { CarrySide } from '../../core/plan/base'
import { readPdf } from '../search/pdf'
import { loadBodies, type TracedItem } from './traces.queries'

const MiB = 1024 * 1024
/** A larger body is a recording or the like; so much is held of others at once. */
const bodyAtMost = 32 * MiB
const heldAtMost = 24 * MiB
const batchAtMost = 200

type SearchedNode = Pick<OutlineNode, 'lineage' | 'type' | 'title' | 'kind' | 'identifier' | 'body' | 'size'>
/** What of a course is looked through. */
export type SearchedContent = Pick<
  CarrySide,
  'categories' | 'grading' | 'rubrics' | 'groups' | 'furniture'
> & {
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
  /** What the file is called, as its package says; empty where it has no name. */
  readonly name: string
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
  const unseen: Looked['unseen'] = []
  // Grade rules come from the first source that has some.
  const graded = sides.findIndex(({ side }) => side.grading !== null)
  const bodies = sides
    .flatMap((each, at) => lookAtRows(search, each, { at, isGraded: at === graded }, count))
    .filter(({ hash }) => !known.has(hash))
  await lookAtBodies(db, search, bodies, { count, unseen })
  const { traces, passedOver } = search.result()
  return {
    found: traces,
    looked: {
      things: [...counts.values()],
      students: people.students.length,
      phones: people.keyOf ? people.students.filter(({ phones }) => phones.length > 0).length : 0,
      similarity: sides.flatMap(({ side, items, keyIn }) =>
        side.nodes.filter(({ lineage }) => similarityOf(items.get(keyIn(lineage))?.settings ?? {}) !== null),
      ).length,
      alsoHere: people.students.filter(({ id }) => people.alsoHere.has(id)).length,
      passedOver,
      unseen,
    },
  }
}
type Count = (words: readonly [string, string], by?: number) => void

/** Titles, identifiers, settings and what stands around the units. Answers the bodies that are to be read. */
function lookAtRows(
  search: TraceSearch,
  { side, items, keyIn }: SearchedSide,
  { at, isGraded }: { at: number; isGraded: boolean },
  count: Count,
): Body[] {
  const bodies: Body[] = []
  const look = (thing: SearchedThing, ...parts: SearchedPart[]): void =>
    search.look(thing, { parts, isTable: false })
  const lines = ({ title, identifier }: { title: string; identifier?: string | null }): SearchedPart[] => [
    linePart(titlePart, title),
    ...(identifier ? [linePart(identifierPart, identifier)] : []),
  ]
  for (const node of side.nodes) {
    const { lineage: on, type, title, kind, body, size } = node
    const thing: SearchedThing = { on, entity: type, side: at, title, itemKind: kind }
    const item = items.get(keyIn(on))
    look(thing, ...lines(node), ...jsonParts(item?.settings ?? {}, 'settings'))
    const name = typeof item?.settings.fileName === 'string' ? item.settings.fileName : ''
    if (body !== null && item)
      bodies.push({ thing, hash: body, size, mediaType: item.media_type ?? '', name })
  }
  const around = { side: at, itemKind: null }
  for (const category of side.categories)
    look({ ...around, on: category.lineage, entity: 'category', title: category.title }, ...lines(category))
  for (const rubric of side.rubrics) {
    const { lineage: on, title } = rubric
    const criteria = 'criteria' in rubric ? rubric.criteria : []
    look({ ...around, on, entity: 'rubric', title }, ...lines(rubric), ...jsonParts(criteria, 'details'))
  }
  for (const group of side.groups)
    look({ ...around, on: group.lineage, entity: 'group', title: group.title }, ...lines(group))
  for (const { lineage: on, title, details } of side.furniture)
    look(
      { ...around, on, entity: 'furnishing', title },
      linePart(titlePart, title),
      ...jsonParts(details, 'details'),
    )
  const scale = isGraded ? (side.grading?.scale ?? []) : []
  if (scale.length > 0)
    look(
      { ...around, on: rulesOn(at), entity: 'rules', title: 'How grades are reckoned' },
      ...jsonParts({ scale }, 'details'),
    )
  count(
    ['title', 'titles'],
    side.nodes.length + side.categories.length + side.rubrics.length + side.furniture.length,
  )
  return bodies
}

interface Told {
  readonly count: Count
  readonly unseen: Looked['unseen']
}
async function lookAtBodies(
  db: Knex,
  search: TraceSearch,
  bodies: readonly Body[],
  told: Told,
): Promise<void> {
  const read = bodies.filter(body => {
    if (body.size <= bodyAtMost) return true
    told.unseen.push(unseenIn(body, { name: '', why: 'It is larger than 32 MB.', size: body.size }))
    return false
  })
  for (const some of batchesOf(read)) {
    const loaded = await loadBodies(db, [...new Set(some.map(({ hash }) => hash))])
    for (const body of some) await lookAtBody(search, body, loaded.get(body.hash), told)
  }
}
/** What could not be looked into of a body: all of it, or a file within it. */
function unseenIn(
  { thing, hash, name }: Body,
  { name: inner, why, size }: { name: string; why: string; size: number },
): Looked['unseen'][number] {
  const own = name === '' || name === thing.title ? [] : [name]
  const file = [...own, ...(inner === '' ? [] : [inner])].join(' › ')
  return {
    id: lineageOf(thing.on, `not looked into ${hash} ${inner}`),
    on: thing.on,
    side: thing.side,
    title: thing.title,
    file: file === '' ? null : file,
    why,
    size,
  }
}
async function lookAtBody(
  search: TraceSearch,
  body: Body,
  bytes: Buffer | undefined,
  { count, unseen }: Told,
): Promise<void> {
  if (!bytes) return
  const { thing, name, mediaType } = body
  const opened = await openBody({ name, mediaType, bytes }, readPdf)
  if ('why' in opened) {
    unseen.push(unseenIn(body, { name: '', why: opened.why, size: body.size }))
    return
  }
  const { reader, open } = opened
  const parts = open.parts.map(({ name: part, file, segments, canWrite }) => ({
    part: bodyPart(part),
    file,
    segments,
    canWrite: canWrite && open.write !== null,
  }))
  search.look(thing, { parts, isTable: reader.isTable })
  count(wordsOf(thing, mediaType) ?? reader.words)
  unseen.push(...open.unseen.map(each => unseenIn(body, each)))
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
