import type { Knex } from 'knex'
import type { ItemKind } from '../../core/course/model'
import type { TracedPerson } from '../../core/student-data/traces/people'
import { inBatches, jsonOf } from '../db/rows'
import type { EnrolmentRole, ItemRow, PersonRow } from '../db/tables'

type Columns = Pick<
  PersonRow,
  | 'id'
  | 'source_id'
  | 'given_name'
  | 'middle_name'
  | 'family_name'
  | 'nickname'
  | 'email'
  | 'number'
  | 'user_name'
  | 'phone_keys'
>
const tracedPerson = (row: Columns): TracedPerson => ({
  id: row.id,
  given: row.given_name,
  middle: row.middle_name,
  family: row.family_name,
  nickname: row.nickname,
  email: row.email,
  key: row.source_id,
  number: row.number,
  userName: row.user_name,
  phones: row.phone_keys?.split(' ') ?? [],
})
/** Everybody who is or was enrolled in some courses, with all that tells them in a text; in one order. */
export async function peopleIn(
  db: Knex,
  courses: readonly string[],
  roles: readonly EnrolmentRole[],
): Promise<TracedPerson[]> {
  const rows = await db('people')
    .whereIn(
      'id',
      db('enrolments')
        .whereIn('course_id', [...courses])
        .whereIn('role', roles)
        .select('person_id'),
    )
    .orderBy('id')
    .select<Columns[]>(
      'id',
      'source_id',
      'given_name',
      'middle_name',
      'family_name',
      'nickname',
      'email',
      'number',
      'user_name',
      'phone_keys',
    )
  return rows.map(tracedPerson)
}

/** What of an item is looked through beyond its outline. */
export type TracedItem = Pick<ItemRow, 'lineage' | 'media_type'> & { settings: Record<string, unknown> }
/** Types and settings of a course's items, by lineage. `contentId`: the course that holds them. */
export async function tracedItems(db: Knex, contentId: string): Promise<Map<string, TracedItem>> {
  const rows = await db('items').where({ course_id: contentId }).select('lineage', 'media_type', 'settings')
  return new Map(rows.map(row => [row.lineage, { ...row, settings: jsonOf(row.settings) }]))
}
/** A unit or an item as it is looked through. */
export type NodeToSearch = TracedItem & {
  type: 'unit' | 'item'
  title: string
  kind: ItemKind | null
  body: string | null
  size: number
  identifier: string | null
}
/** Some units and items of a course that shows its own content, as they are looked through, by lineage. */
export async function nodesToSearch(
  db: Knex,
  courseId: string,
  lineages: readonly string[],
): Promise<Map<string, NodeToSearch>> {
  const nodes = new Map<string, NodeToSearch>()
  for (const some of inBatches(lineages)) {
    const units = await db('units')
      .where({ course_id: courseId })
      .whereIn('lineage', some)
      .select('lineage', 'title', 'identifier')
    const nothing = { kind: null, body: null, size: 0, media_type: null, settings: {} }
    for (const row of units) nodes.set(row.lineage, { ...nothing, ...row, type: 'unit' })
    const items = await db('items')
      .leftJoin('bodies', 'bodies.hash', 'items.body_hash')
      .where({ course_id: courseId })
      .whereIn('lineage', some)
      .select('lineage', 'title', 'kind', 'body_hash', 'items.media_type', 'settings', 'identifier', 'size')
    for (const { body_hash: body, settings, size, ...row } of items)
      nodes.set(row.lineage, { ...row, type: 'item', body, size: size ?? 0, settings: jsonOf(settings) })
  }
  return nodes
}
/** Some bodies whole, by hash. The caller asks for no more at once than may be held. */
export async function loadBodies(db: Knex, hashes: readonly string[]): Promise<Map<string, Buffer>> {
  const rows = await db('body_parts')
    .whereIn('hash', hashes)
    .orderBy(['hash', 'part'])
    .select('hash', 'bytes')
  const parts = new Map<string, Buffer[]>()
  for (const { hash, bytes } of rows) {
    const list = parts.get(hash)
    if (list) list.push(bytes)
    else parts.set(hash, [bytes])
  }
  return new Map(
    [...parts].map(([hash, list]) => [
      hash,
      list.length === 1 ? (list[0] ?? Buffer.alloc(0)) : Buffer.concat(list),
    ]),
  )
}
