import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { copyWhole, dropContent } from '../courses/content.queries'
import { newId, selectRows, written } from '../db/rows'
import { shortName, type NamedRow } from '../people/names'

const emptyCourse = async (trx: Knex, courseId: string): Promise<void> => {
  await dropContent(trx, courseId)
  await trx('meetings').where({ course_id: courseId }).delete()
}

/** Keeps what stands on a shelf as it is now, as the version that it is, and counts on. `note`: what changes with the next. */
export async function keepVersion(
  trx: Knex,
  templateId: string,
  personId: string,
  note: string,
): Promise<number> {
  const course = await trx('courses').where({ id: templateId }).first()
  const template = await trx('templates').where({ course_id: templateId }).first()
  if (!course || !template) throw new Error(`there is no template ${templateId}`)
  const id = newId()
  const kept = stampOf(now())
  await trx('courses').insert({
    ...course,
    id,
    source_id: `version:${id}`,
    origin: 'version',
    created_at: kept,
  })
  await copyWhole(trx, templateId, id)
  await trx('template_versions').insert({
    template_id: templateId,
    number: template.version,
    course_id: id,
    person_id: personId,
    kept_at: kept,
    note: template.note,
  })
  const version = template.version + 1
  await trx('templates').where({ course_id: templateId }).update({ version, note })
  return version
}
/** Gives a course the content of another, in place of its own. */
export async function takeContent(trx: Knex, courseId: string, from: string): Promise<void> {
  await emptyCourse(trx, courseId)
  await copyWhole(trx, from, courseId)
}
/**
 * Leaves only some units and items in a course that was just copied; a unit whose own is gone stands at the top. What stood around them goes,
 * and so do grade categories that nothing is graded under.
 */
export async function keepUnit(trx: Knex, courseId: string, lineages: readonly string[]): Promise<void> {
  await trx('items').where({ course_id: courseId }).whereNotIn('lineage', lineages).delete()
  await trx('units').where({ course_id: courseId }).whereNotIn('lineage', lineages).delete()
  await trx('units')
    .where({ course_id: courseId })
    .whereNotIn('parent_lineage', lineages)
    .update({ parent_lineage: null })
  for (const table of ['furnishings', 'carried_bases', 'grade_rules', 'grace_rules', 'meetings'] as const)
    await trx(table).where({ course_id: courseId }).delete()
  await written(
    trx,
    `DELETE c FROM grade_categories c
     LEFT JOIN items i ON i.course_id = c.course_id AND i.category_lineage = c.lineage
     WHERE c.course_id = :courseId AND i.lineage IS NULL`,
    { courseId },
  )
}

export interface Version {
  number: number
  courseId: string
  by: string
  at: string
  note: string
  items: number
}
/** The versions that were kept of what stands on a shelf, the latest first. */
export async function versionsOf(db: Knex, templateId: string): Promise<Version[]> {
  const rows = await selectRows<
    NamedRow & { number: number; course_id: string; kept_at: string; note: string; items: number }
  >(
    db,
    `SELECT v.number, v.course_id, v.kept_at, v.note, given_name, family_name,
       (SELECT COUNT(*) FROM items WHERE items.course_id = v.course_id AND items.state <> 'deleted') AS items
     FROM template_versions v JOIN people ON people.id = v.person_id
     WHERE v.template_id = :templateId ORDER BY v.number DESC`,
    { templateId },
  )
  return rows.map(row => ({
    number: row.number,
    courseId: row.course_id,
    by: shortName(row),
    at: row.kept_at,
    note: row.note,
    items: row.items,
  }))
}
/** Takes away the versions that were kept of a template. */
export async function dropVersions(trx: Knex, templateId: string): Promise<void> {
  const kept = await trx('template_versions').where({ template_id: templateId }).pluck('course_id')
  await trx('template_versions').where({ template_id: templateId }).delete()
  for (const id of kept) {
    await emptyCourse(trx, id)
    await trx('courses').where({ id }).delete()
  }
}
