import type { Knex } from 'knex'
import type { ClearedCounts } from '../../core/student-data/clearing'
import { allStudentData, type AnyStudentDataKind } from '../../core/student-data/student-data'
import { now, stampOf } from '../clock'
import { json, jsonOf, newId, selectRows, written } from '../db/rows'
import type { ClearingRow } from '../db/tables'
import { fullName } from '../people/names'

/**
 * Whose rows in a course may be cleared. In a course that is rolled in place: last term's students. In a shell: those whom the registrar does
 * not list there (added by hand, or dropped); whom he lists is this term's.
 */
export type Whose = 'everyone' | 'unlisted'
const whoseSql: Record<Whose, string> = {
  everyone: 'TRUE',
  unlisted: "(e.origin = 'hand' OR e.dropped_at IS NOT NULL OR e.missing_since IS NOT NULL)",
}
/** Rows of one kind in a course by item and by role, of those that may be cleared. */
export interface HeldRows {
  readonly kind: AnyStudentDataKind['name']
  readonly item: string | null
  readonly enrolment: string
  readonly isStudent: boolean
  readonly rows: number
}
export async function heldRows(db: Knex, courseId: string, whose: Whose): Promise<HeldRows[]> {
  const ofKind = ({ name }: AnyStudentDataKind): string =>
    `SELECT '${name}' AS kind, t.item_lineage AS item, e.id AS enrolment, MAX(e.role = 'student') AS student, COUNT(*) AS n
     FROM ${name} t JOIN enrolments e ON e.id = t.enrolment_id
     WHERE e.course_id = :courseId AND (e.role <> 'student' OR ${whoseSql[whose]})
     GROUP BY t.item_lineage, e.id`
  const rows = await selectRows<{
    kind: AnyStudentDataKind['name']
    item: string | null
    enrolment: string
    student: number
    n: number
  }>(db, allStudentData.map(ofKind).join(' UNION ALL '), { courseId })
  return rows.map(({ kind, item, enrolment, student, n }) => ({
    kind,
    item,
    enrolment,
    isStudent: Number(student) === 1,
    rows: Number(n),
  }))
}
/** A student of a course who may be taken off: of the registrar's list once, or added by hand. */
export interface Standing {
  readonly enrolment: string
  readonly name: string
  readonly origin: 'registrar' | 'hand'
  readonly isGone: boolean
}
export async function standingStudents(db: Knex, courseId: string, whose: Whose): Promise<Standing[]> {
  const rows = await db('enrolments as e')
    .join('people', 'people.id', 'e.person_id')
    .where({ course_id: courseId, role: 'student' })
    .whereRaw(whoseSql[whose])
    .orderBy(['family_name', 'given_name', 'e.id'])
    .select('e.id', 'e.origin', 'e.dropped_at', 'e.missing_since', 'given_name', 'family_name')
  return rows.map(row => ({
    enrolment: row.id,
    name: fullName(row),
    origin: row.origin,
    isGone: row.dropped_at !== null || row.missing_since !== null,
  }))
}
const columnsOf = (kind: AnyStudentDataKind): string[] => [
  ...(kind.several ? ['id'] : []),
  ...Object.keys(kind.columns),
]
const asObject = (columns: readonly string[]): string =>
  `JSON_OBJECT(${columns.map(column => `'${column}', CONVERT(t.${column} USING utf8mb4)`).join(', ')})`

export async function insertClearing(
  trx: Knex,
  clearing: { courseId: string; runId: string | null; personId: string; days: number },
): Promise<string> {
  const id = newId()
  await trx('clearings').insert({
    id,
    course_id: clearing.courseId,
    run_id: clearing.runId,
    person_id: clearing.personId,
    cleared_at: stampOf(now()),
    keep_until: stampOf(new Date(now().getTime() + clearing.days * 86_400_000)),
    counts: json({}),
  })
  return id
}
export const setCounts = async (trx: Knex, id: string, counts: ClearedCounts): Promise<void> => {
  await trx('clearings')
    .where({ id })
    .update({ counts: json(counts) })
}
interface Cleared {
  readonly clearingId: string
  readonly courseId: string
}
/** Which rows of a kind go: those of some enrolments, or of whoever may be cleared; but for those about some items. */
export interface Goes {
  readonly enrolments: readonly string[]
  readonly except: readonly string[]
}
const batch = 500
/** Moves rows of one kind aside, set by set. Answers how many. */
export async function moveAside(
  trx: Knex,
  { clearingId }: Cleared,
  kind: AnyStudentDataKind,
  { enrolments, except }: Goes,
): Promise<number> {
  let moved = 0
  for (let at = 0; at < enrolments.length; at += batch) {
    const names = { clearingId, enrolments: enrolments.slice(at, at + batch), except: [...except, ''] }
    const these =
      't.enrolment_id IN (:enrolments) AND (t.item_lineage IS NULL OR t.item_lineage NOT IN (:except))'
    const wrote = await written(
      trx,
      `INSERT INTO kept_aside (id, clearing_id, kind, enrolment_id, item_lineage, former, body_hash)
       SELECT UUID(), :clearingId, '${kind.name}', t.enrolment_id, t.item_lineage, ${asObject(columnsOf(kind))},
         ${kind.text ? 't.body_hash' : 'NULL'}
       FROM ${kind.name} t WHERE ${these}`,
      names,
    )
    const gone = await written(trx, `DELETE t FROM ${kind.name} t WHERE ${these}`, names)
    if (gone !== wrote) throw new Error(`${wrote} rows of ${kind.name} kept aside, ${gone} cleared`)
    moved += gone
  }
  return moved
}
/** Moves everything of one kind that is about some items aside. Answers how many rows. */
export async function moveItemsAside(
  trx: Knex,
  { clearingId, courseId }: Cleared,
  kind: AnyStudentDataKind,
  lineages: readonly string[],
): Promise<number> {
  const names = { clearingId, courseId, lineages: JSON.stringify(lineages) }
  const these = `FROM ${kind.name} t JOIN enrolments e ON e.id = t.enrolment_id AND e.course_id = :courseId
    JOIN JSON_TABLE(:lineages, '$[*]' COLUMNS (lineage CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PATH '$')) l
      ON l.lineage = t.item_lineage`
  const wrote = await written(
    trx,
    `INSERT INTO kept_aside (id, clearing_id, kind, enrolment_id, item_lineage, former, body_hash)
     SELECT UUID(), :clearingId, '${kind.name}', t.enrolment_id, t.item_lineage, ${asObject(columnsOf(kind))},
       ${kind.text ? 't.body_hash' : 'NULL'} ${these}`,
    names,
  )
  const gone = await written(trx, `DELETE t ${these}`, names)
  if (gone !== wrote) throw new Error(`${wrote} rows of ${kind.name} kept aside, ${gone} cleared`)
  return gone
}
const enrolmentColumns = [
  'person_id',
  'role',
  'is_primary',
  'may_run',
  'origin',
  'source_id',
  'dropped_at',
  'missing_since',
] as const
/** Takes people off a course, and keeps aside that they were on it. Nothing hangs off their enrolments any more. */
export async function takeOff(
  trx: Knex,
  { clearingId }: Cleared,
  enrolments: readonly string[],
): Promise<number> {
  let moved = 0
  for (let at = 0; at < enrolments.length; at += batch) {
    const names = { clearingId, enrolments: enrolments.slice(at, at + batch) }
    await written(
      trx,
      `INSERT INTO kept_aside (id, clearing_id, kind, enrolment_id, item_lineage, former)
       SELECT UUID(), :clearingId, 'enrolments', t.id, NULL, ${asObject(enrolmentColumns)}
       FROM enrolments t WHERE t.id IN (:enrolments)`,
      names,
    )
    moved += await written(trx, 'DELETE FROM enrolments WHERE id IN (:enrolments)', names)
  }
  return moved
}

/** Puts everything back that a clearing keeps aside, people first. @throws where a row cannot be put back: nothing is then. */
export async function putBack(trx: Knex, clearingId: string, courseId: string): Promise<void> {
  const former = (column: string): string => `JSON_VALUE(k.former, '$.${column}')`
  await written(
    trx,
    `INSERT INTO enrolments (id, course_id, ${enrolmentColumns.join(', ')})
     SELECT k.enrolment_id, :courseId, ${enrolmentColumns.map(former).join(', ')}
     FROM kept_aside k WHERE k.clearing_id = :clearingId AND k.kind = 'enrolments'`,
    { clearingId, courseId },
  )
  for (const kind of allStudentData) {
    const columns = columnsOf(kind)
    const text = kind.text ? ', body_hash' : ''
    await written(
      trx,
      `INSERT INTO ${kind.name} (enrolment_id, item_lineage, ${columns.join(', ')}${text})
       SELECT k.enrolment_id, k.item_lineage, ${columns.map(former).join(', ')}${text && ', k.body_hash'}
       FROM kept_aside k WHERE k.clearing_id = :clearingId AND k.kind = '${kind.name}'`,
      { clearingId },
    )
  }
}
export const dropKept = (trx: Knex, clearingId: string): Promise<number> =>
  trx('kept_aside').where({ clearing_id: clearingId }).delete()

export interface Clearing {
  id: string
  courseId: string
  runId: string | null
  by: string
  clearedAt: string
  keepUntil: string
  counts: ClearedCounts
  state: ClearingRow['state']
  endedAt: string | null
}
type Columns = ClearingRow & { given_name: string; family_name: string }
const clearingRows = (db: Knex) =>
  db('clearings')
    .join('people', 'people.id', 'clearings.person_id')
    .select<Columns[]>('clearings.*', 'given_name', 'family_name')
const clearingFrom = (row: Columns): Clearing => ({
  id: row.id,
  courseId: row.course_id,
  runId: row.run_id,
  by: fullName(row),
  clearedAt: row.cleared_at,
  keepUntil: row.keep_until,
  counts: jsonOf(row.counts),
  state: row.state,
  endedAt: row.ended_at,
})
/** What was cleared in a course, the latest first. */
export async function clearingsOf(db: Knex, courseId: string): Promise<Clearing[]> {
  const rows = await clearingRows(db).where({ course_id: courseId }).orderBy('clearings.id', 'desc')
  return rows.map(clearingFrom)
}
/** One clearing, locked by being written: whoever else ends it waits, and finds it ended. */
export async function lockClearing(trx: Knex.Transaction, id: string): Promise<Clearing | null> {
  await trx('clearings').where({ id }).update({ id })
  await trx('clearings').where({ id }).forUpdate().first('id')
  const [row] = await clearingRows(trx).where('clearings.id', id)
  return row ? clearingFrom(row) : null
}
export async function endClearing(
  trx: Knex,
  id: string,
  state: 'restored' | 'destroyed',
  personId: string | null,
): Promise<void> {
  await trx('clearings')
    .where({ id })
    .update({ state, ended_at: stampOf(now()), ended_by: personId })
}
/** Clearings whose time is over. */
export const overdueClearings = (db: Knex): Promise<string[]> =>
  db('clearings').where({ state: 'kept' }).where('keep_until', '<', stampOf(now())).pluck('id')

/** Which columns name a body: whatever refers to `bodies`, but for what is made of one and goes with it. */
async function bodyReferences(db: Knex): Promise<{ table: string; column: string }[]> {
  const rows = await selectRows<{ table: string; column: string }>(
    db,
    `SELECT TABLE_NAME AS \`table\`, COLUMN_NAME AS \`column\` FROM information_schema.KEY_COLUMN_USAGE
     WHERE TABLE_SCHEMA = DATABASE() AND REFERENCED_TABLE_NAME = 'bodies'`,
    {},
  )
  return rows.filter(({ table }) => !madeOfBodies.includes(table))
}
const madeOfBodies = ['body_parts', 'readable_bodies', 'body_links']
/** Texts that a clearing keeps, by hash. */
export async function keptBodies(db: Knex, clearingId: string): Promise<string[]> {
  const hashes = await db('kept_aside').where({ clearing_id: clearingId }).distinct().pluck('body_hash')
  return hashes.filter(hash => hash !== null)
}
/** Destroys those of some bodies that nothing holds any more, with what was made of them. */
export async function destroyBodies(trx: Knex, hashes: readonly string[]): Promise<void> {
  const holders = await bodyReferences(trx)
  for (let at = 0; at < hashes.length; at += batch) {
    let free = hashes.slice(at, at + batch)
    for (const { table, column } of holders) {
      if (free.length === 0) break
      const rows = await selectRows<{ hash: string }>(
        trx,
        `SELECT DISTINCT ${column} AS hash FROM ${table} WHERE ${column} IN (:free)`,
        { free },
      )
      const held = new Set(rows.map(({ hash }) => hash))
      free = free.filter(hash => !held.has(hash))
    }
    for (const table of [...madeOfBodies, 'bodies'] as const)
      if (free.length > 0) await written(trx, `DELETE FROM ${table} WHERE hash IN (:free)`, { free })
  }
}

/** Courses that were rolled in place, in which people of the registrar's list of the old term stand, with how much is left of theirs. */
export async function coursesToSweep(
  db: Knex,
): Promise<{ courseId: string; students: number; rows: number }[]> {
  const courses = await selectRows<{ courseId: string; students: number }>(
    db,
    `SELECT e.course_id AS courseId, COUNT(*) AS students
     FROM enrolments e JOIN courses c ON c.id = e.course_id
     WHERE c.source_id LIKE 'in-place:%' AND e.role = 'student' AND e.origin = 'registrar' AND e.source_id IS NULL
     GROUP BY e.course_id ORDER BY MIN(c.code), MIN(c.section)`,
    {},
  )
  const found: { courseId: string; students: number; rows: number }[] = []
  for (const { courseId, students } of courses) {
    const held = await heldRows(db, courseId, 'everyone')
    const rows = held.filter(row => row.isStudent).reduce((sum, row) => sum + row.rows, 0)
    found.push({ courseId, students: Number(students), rows })
  }
  return found
}
