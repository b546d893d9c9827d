import type { Knex } from 'knex'
import type { Since } from '../../shared/api/undo'
import { now, stampOf } from '../clock'
import { json, jsonOf, newId, selectRows, written } from '../db/rows'
import type { UndoRow } from '../db/tables'
import { shortName, type NamedRow } from '../people/names'

export interface Undo {
  id: string
  kind: UndoRow['kind']
  by: string
  at: string
  beforeId: string | null
  clearingId: string | null
  told: Since
}
/** What was undone of a run and put back, the latest first. */
export async function undosOf(db: Knex, runId: string): Promise<Undo[]> {
  const rows = await db('undos')
    .join('people', 'people.id', 'undos.person_id')
    .where({ run_id: runId })
    .orderBy('undos.id', 'desc')
    .select<(UndoRow & NamedRow)[]>('undos.*', 'given_name', 'family_name')
  return rows.map(row => ({
    id: row.id,
    kind: row.kind,
    by: shortName(row),
    at: row.at,
    beforeId: row.before_id,
    clearingId: row.clearing_id,
    told: jsonOf(row.told),
  }))
}
export async function insertUndo(
  trx: Knex,
  undo: Pick<Undo, 'kind' | 'clearingId' | 'told'> & { runId: string; personId: string; beforeId: string },
): Promise<void> {
  await trx('undos').insert({
    id: newId(),
    run_id: undo.runId,
    person_id: undo.personId,
    kind: undo.kind,
    at: stampOf(now()),
    before_id: undo.beforeId,
    clearing_id: undo.clearingId,
    told: json(undo.told),
  })
}
export async function markRunUndone(trx: Knex, runId: string, isUndone: boolean): Promise<void> {
  await trx('runs')
    .where({ id: runId })
    .update({ undone_at: isUndone ? stampOf(now()) : null })
}
/** Units and items that a course has and another has not: with null all of them. */
export async function onlyIn(
  db: Knex,
  courseId: string,
  other: string | null,
): Promise<{ lineage: string; title: string }[]> {
  return selectRows(
    db,
    `SELECT i.lineage, i.title FROM items i
     LEFT JOIN items o ON o.course_id = :other AND o.lineage = i.lineage
     WHERE i.course_id = :courseId AND o.lineage IS NULL ORDER BY i.position`,
    { courseId, other: other ?? '' },
  )
}
/** What stands of a course: units and items that are not deleted. */
export async function heldIn(db: Knex, courseId: string | null): Promise<{ units: number; items: number }> {
  const count = async (table: 'units' | 'items'): Promise<number> => {
    const [row] = await db(table)
      .where({ course_id: courseId ?? '' })
      .whereNot({ state: 'deleted' })
      .count<{ count: number }[]>({ count: '*' })
    return Number(row?.count ?? 0)
  }
  return { units: await count('units'), items: await count('items') }
}
/** Names of people by enrolment. */
export async function enrolledNames(db: Knex, enrolments: readonly string[]): Promise<Map<string, string>> {
  const rows = await db('enrolments')
    .join('people', 'people.id', 'enrolments.person_id')
    .whereIn('enrolments.id', [...enrolments])
    .select('enrolments.id', 'given_name', 'family_name')
  return new Map(rows.map(row => [row.id, `${row.given_name} ${row.family_name}`]))
}
/** By enrolment, the enrolment of the same person in another course. */
export async function sameInOther(db: Knex, courseId: string, other: string): Promise<Map<string, string>> {
  const rows = await selectRows<{ here: string; there: string }>(
    db,
    `SELECT h.id AS here, o.id AS there FROM enrolments h
     JOIN enrolments o ON o.course_id = :other AND o.person_id = h.person_id AND o.role = h.role
     WHERE h.course_id = :courseId`,
    { courseId, other },
  )
  return new Map(rows.map(({ here, there }) => [here, there]))
}

/**
 * Takes a snapshot's place away: the course gets back what the registrar has called it since, and its people as he has them; the snapshot
 * is a hidden copy from then on, and what it held of students, which the course holds itself, goes.
 */
export async function takeOverFromSnapshot(
  trx: Knex,
  courseId: string,
  snapshotId: string,
  studentTables: readonly string[],
): Promise<void> {
  const names = { courseId, snapshotId }
  const snapshot = await trx('courses').where({ id: snapshotId }).first('source_id')
  if (!snapshot) throw new Error(`there is no snapshot ${snapshotId}`)
  await trx('courses')
    .where({ id: snapshotId })
    .update({ source_id: `undone:${snapshotId}`, origin: 'version' })
  await trx('courses').where({ id: courseId }).update({ source_id: snapshot.source_id })
  const columns = ['source_id', 'origin', 'is_primary', 'may_run', 'dropped_at', 'missing_since']
  const kept = await selectRows<Record<string, unknown> & { here: string }>(
    trx,
    `SELECT h.id AS here, ${columns.map(column => `o.${column}`).join(', ')} FROM enrolments o
     JOIN enrolments h ON h.course_id = :courseId AND h.person_id = o.person_id AND h.role = o.role
     WHERE o.course_id = :snapshotId`,
    names,
  )
  for (const table of studentTables)
    await written(
      trx,
      `DELETE t FROM ${table} t JOIN enrolments e ON e.id = t.enrolment_id WHERE e.course_id = :snapshotId`,
      names,
    )
  // Who came to the old class meanwhile comes along.
  await written(
    trx,
    `UPDATE enrolments o LEFT JOIN enrolments h
       ON h.course_id = :courseId AND h.person_id = o.person_id AND h.role = o.role
     SET o.course_id = :courseId WHERE o.course_id = :snapshotId AND h.id IS NULL`,
    names,
  )
  await trx('enrolments').where({ course_id: snapshotId }).delete()
  for (const { here, ...row } of kept) await trx('enrolments').where({ id: here }).update(row)
  await trx('searched_items').where({ course_id: snapshotId }).delete()
}
