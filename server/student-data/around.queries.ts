import type { Knex } from 'knex'
import type { RedactedThings } from '../../core/plan/redacted'
import { inBatches, json } from '../db/rows'
import type { RedactedAround } from './redactor'

const aroundTables = ['grade_categories', 'rubrics', 'work_groups', 'furnishings'] as const
/** Gives what stands around the units of a course titles, criteria and details that name no student. Few do: row by row. */
export async function redactAround(
  trx: Knex,
  courseId: string,
  redacted: RedactedThings,
  around: readonly RedactedAround[],
): Promise<void> {
  for (const [lineage, { title }] of redacted) {
    if (title === null) continue
    for (const table of aroundTables)
      await trx(table).where({ course_id: courseId, lineage }).update({ title })
  }
  for (const { entity, lineage, details } of around) {
    const where = { course_id: courseId, lineage }
    if (entity === 'rubric')
      await trx('rubrics')
        .where(where)
        .update({ criteria: json(details) as never })
    else
      await trx('furnishings')
        .where(where)
        .update({ details: json(details) as never })
  }
}
const identifiedTables = ['units', 'items', 'rubrics', 'work_groups', 'grade_categories'] as const
/** Calls things of a course by their own keys, which what they were called in a package named a student by. */
export async function redactIdentifiers(
  trx: Knex,
  courseId: string,
  lineages: readonly string[],
): Promise<void> {
  for (const some of inBatches(lineages))
    for (const table of identifiedTables)
      await trx(table)
        .where({ course_id: courseId })
        .whereIn('lineage', some)
        .whereNotNull('identifier')
        .update({ identifier: trx.ref('lineage') })
}
