import type { Knex } from 'knex'
import {
  allStudentData,
  countsOf,
  studentDataNames,
  type AnyStudentDataKind,
  type StudentDataCounts,
} from '../../core/student-data/student-data'
import { inBatches, newId, selectRows, written } from '../db/rows'
import type { StudentDataRow } from '../db/tables'
import { hashOf, storeBodies } from './bodies.queries'

/** How much student data of each kind a course holds. With `lineages`, only what is about those items. */
export async function countStudentData(
  db: Knex,
  courseId: string,
  lineages?: readonly string[],
): Promise<StudentDataCounts> {
  // The keys of many items go as one document: as a list they would have to be read once for each kind.
  const these = lineages
    ? `these AS (SELECT lineage FROM JSON_TABLE(:lineages, '$[*]' COLUMNS (
         lineage CHAR(36) CHARACTER SET ascii COLLATE ascii_bin PATH '$')) t)`
    : 'these AS (SELECT NULL AS lineage)'
  const about = lineages ? 'AND x.item_lineage IN (SELECT lineage FROM these)' : ''
  const ofKind = (name: string): string =>
    `SELECT '${name}' AS name, COUNT(*) AS n FROM ${name} x JOIN enrolments e ON e.id = x.enrolment_id
     WHERE e.course_id = :courseId ${about}`
  const roster = `SELECT 'students' AS name, COUNT(*) AS n FROM enrolments WHERE course_id = :courseId AND role = 'student'`
  const rows = await selectRows<{ name: string; n: number }>(
    db,
    `WITH ${these} ${[roster, ...studentDataNames.map(ofKind)].join(' UNION ALL ')}`,
    { courseId, lineages: JSON.stringify(lineages ?? []) },
  )
  const counts = new Map(rows.map(({ name, n }) => [name, Number(n)]))
  return countsOf(name => counts.get(name) ?? 0)
}

/** The items of a course on which any student did anything. */
export async function itemsWorkedOn(db: Knex, courseId: string): Promise<Set<string>> {
  const enrolled = db('enrolments').where({ course_id: courseId }).select('id')
  const items = new Set<string>()
  for (const name of studentDataNames) {
    const rows = await db<StudentDataRow>(name)
      .whereIn('enrolment_id', enrolled.clone())
      .whereNotNull('item_lineage')
      .distinct<{ item_lineage: string }[]>('item_lineage')
    for (const row of rows) items.add(row.item_lineage)
  }
  return items
}

/** One thing about a student, as it is written: whom and what it is about, its columns, and what was written, as text. */
export interface StudentEntry extends StudentDataRow {
  readonly values: Readonly<Record<string, unknown>>
  readonly text?: string
}
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text)

/** Writes student data of one kind, each row hanging off an enrolment. */
export async function insertStudentData(
  db: Knex,
  kind: AnyStudentDataKind,
  entries: readonly StudentEntry[],
): Promise<void> {
  const texts = entries.flatMap(entry => (entry.text === undefined ? [] : [bytesOf(entry.text)]))
  if (kind.text) await storeBodies(db, texts)
  const rows = entries.map(({ enrolment_id, item_lineage, values, text }) => ({
    ...(kind.several && { id: newId() }),
    enrolment_id,
    item_lineage,
    ...values,
    ...(kind.text && { body_hash: hashOf(bytesOf(text ?? '')) }),
  }))
  for (const batch of inBatches(rows)) await db<StudentDataRow>(kind.name).insert(batch)
}

/** Copies everything about the students of a course onto the enrolments of another that has the same people. */
export async function copyStudentData(trx: Knex, from: string, to: string): Promise<void> {
  for (const kind of allStudentData) {
    const columns = ['item_lineage', ...Object.keys(kind.columns), ...(kind.text ? ['body_hash'] : [])]
    const id = kind.several ? 'id, ' : ''
    await written(
      trx,
      `INSERT INTO ${kind.name} (${id}enrolment_id, ${columns.join(', ')})
       SELECT ${id && 'UUID(), '}kept.id, ${columns.map(column => `done.${column}`).join(', ')}
       FROM ${kind.name} done
       JOIN enrolments old ON old.id = done.enrolment_id AND old.course_id = :from
       JOIN enrolments kept
         ON kept.course_id = :to AND kept.person_id = old.person_id AND kept.role = old.role`,
      { from, to },
    )
  }
}
/** Copies the enrolments of a course, and takes the registrar's keys off those it had. */
export async function copyEnrolments(trx: Knex, from: string, to: string): Promise<void> {
  const columns = 'person_id, role, is_primary, may_run, origin, source_id, dropped_at, missing_since'
  await written(
    trx,
    `INSERT INTO enrolments (id, course_id, ${columns})
     SELECT UUID(), :to, ${columns} FROM enrolments WHERE course_id = :from`,
    { from, to },
  )
  await trx('enrolments').where({ course_id: from }).update({ source_id: null })
}

/** Students whom somebody added by hand to the course that a plan writes, by enrolment. */
export async function addedByHand(db: Knex, courseId: string): Promise<string[]> {
  const rows = await db('enrolments')
    .where({ course_id: courseId, role: 'student', origin: 'hand' })
    .orderBy('id')
    .select('id')
  return rows.map(({ id }) => id)
}
