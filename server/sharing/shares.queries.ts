import type { Knex } from 'knex'
import type { ItemKind } from '../../core/course/model'
import { now, stampOf } from '../clock'
import { jsonOf, newId } from '../db/rows'
import { loadOutline, personName } from '../courses/courses.queries'
import { contentOf } from '../courses/sections.queries'

export interface ShareRow {
  id: string
  courseId: string
  by: string
  code: string | null
  org: { id: string; name: string } | null
  leaves: ItemKind[]
  createdAt: string
  expiresAt: string | null
  revokedAt: string | null
  uses: number
}
const shares = (db: Knex) =>
  db('shares')
    .join('people', 'people.id', 'shares.person_id')
    .leftJoin('orgs', 'orgs.id', 'shares.org_id')
    .select(
      'shares.*',
      'given_name',
      'family_name',
      { org_name: 'orgs.name' },
      db.raw('(SELECT COUNT(*) FROM share_uses WHERE share_id = shares.id) AS uses'),
    )
const shareOf = (row: Record<string, string | null>): ShareRow => ({
  id: row.id!,
  courseId: row.course_id!,
  by: personName(row as { given_name: string; family_name: string }),
  code: row.code!,
  org: row.org_id ? { id: row.org_id, name: row.org_name! } : null,
  leaves: jsonOf(row.leaves),
  createdAt: row.created_at!,
  expiresAt: row.expires_at ?? null,
  revokedAt: row.revoked_at ?? null,
  uses: Number(row.uses),
})
export async function insertShare(
  db: Knex,
  share: {
    courseId: string
    personId: string
    code: string | null
    orgId: string | null
    leaves: readonly ItemKind[]
    expiresAt: string | null
  },
): Promise<string> {
  const id = newId()
  await db('shares').insert({
    id,
    course_id: share.courseId,
    person_id: share.personId,
    code: share.code,
    org_id: share.orgId,
    leaves: JSON.stringify(share.leaves),
    created_at: stampOf(now()),
    expires_at: share.expiresAt,
  })
  return id
}
export async function sharesOf(db: Knex, courseId: string): Promise<ShareRow[]> {
  return (await shares(db).where({ course_id: courseId }).orderBy('shares.id', 'desc')).map(shareOf)
}
export async function findShare(db: Knex, by: { id: string } | { code: string }): Promise<ShareRow | null> {
  const row = await shares(db)
    .where('id' in by ? { 'shares.id': by.id } : { code: by.code })
    .first()
  return row ? shareOf(row) : null
}
export async function revokeShare(db: Knex, id: string): Promise<void> {
  await db('shares')
    .where({ id })
    .whereNull('revoked_at')
    .update({ revoked_at: stampOf(now()) })
}
export async function useShare(db: Knex, id: string, personId: string): Promise<void> {
  await db('share_uses')
    .insert({ share_id: id, person_id: personId, at: stampOf(now()) })
    .onConflict(['share_id', 'person_id'])
    .ignore()
}
export async function orgName(db: Knex, id: string): Promise<string | null> {
  return (await db('orgs').where({ id }).first('name'))?.name ?? null
}
export async function orgOfCourse(db: Knex, courseId: string): Promise<string | null> {
  return (await db('courses').where({ id: courseId }).first('org_id'))?.org_id ?? null
}
export async function orgNames(db: Knex, ids: readonly string[]): Promise<{ id: string; name: string }[]> {
  return db('orgs').whereIn('id', ids).orderBy('name').select('id', 'name')
}
/** Names a course is shared under: those who may take from it through a department, of some courses. */
export async function departmentShares(
  db: Knex,
  courseIds: readonly string[],
): Promise<Map<string, string[]>> {
  const rows = await db('shares')
    .join('orgs', 'orgs.id', 'shares.org_id')
    .whereIn('course_id', courseIds)
    .whereNull('revoked_at')
    .where(holds => holds.whereNull('expires_at').orWhere('expires_at', '>', stampOf(now())))
    .select('course_id', 'orgs.name')
  const found = new Map<string, string[]>()
  for (const row of rows) found.set(row.course_id, [...(found.get(row.course_id) ?? []), row.name])
  return found
}

export interface TemplateRow {
  courseId: string
  subject: string
  arrangement: 'weeks' | 'units'
  about: string
  authorId: string
  author: string
  createdAt: string
}
export async function insertTemplate(
  db: Knex,
  template: {
    courseId: string
    subject: string
    arrangement: 'weeks' | 'units'
    about: string
    personId: string
  },
): Promise<void> {
  await db('templates').insert({
    course_id: template.courseId,
    subject: template.subject,
    arrangement: template.arrangement,
    about: template.about,
    person_id: template.personId,
    created_at: stampOf(now()),
  })
}
export async function templatesAmong(db: Knex, courses: Knex.QueryBuilder): Promise<TemplateRow[]> {
  return (
    await db('templates')
      .join('people', 'people.id', 'templates.person_id')
      .whereIn('course_id', courses.select('courses.id'))
      .orderBy('templates.created_at', 'desc')
      .orderBy('course_id', 'desc')
      .select('templates.*', 'given_name', 'family_name')
  ).map(row => ({
    courseId: row.course_id,
    subject: row.subject,
    arrangement: row.arrangement,
    about: row.about,
    authorId: row.person_id,
    author: personName(row),
    createdAt: row.created_at,
  }))
}
/** Kinds of the items in each top unit, however deep, in order: what the picture of a template is drawn from. */
export async function shapesOf(
  db: Knex,
  courseIds: readonly string[],
): Promise<Map<string, { title: string; kinds: { kind: ItemKind; exam: boolean }[] }[]>> {
  const shapes = new Map<string, { title: string; kinds: { kind: ItemKind; exam: boolean }[] }[]>()
  for (const id of courseIds) {
    const tops: { title: string; kinds: { kind: ItemKind; exam: boolean }[] }[] = []
    for (const node of await loadOutline(db, id)) {
      if (node.type === 'unit' && node.depth === 0) tops.push({ title: node.title, kinds: [] })
      else if (node.kind !== null && node.depth > 0)
        tops.at(-1)?.kinds.push({ kind: node.kind, exam: node.exam })
    }
    shapes.set(id, tops)
  }
  return shapes
}

/** Copies everything that a course holds as content into another that holds none: rows of metadata, set by set; bodies stay shared. */
export async function copyWhole(
  trx: Knex,
  from: string,
  to: string,
): Promise<{ items: number; units: number }> {
  const content = await contentOf(trx, from)
  const copy = async (table: string, columns: string, source = content, as = table): Promise<number> =>
    Number(
      (
        (await trx.raw(
          `INSERT INTO ${as} (course_id, ${columns}) SELECT ?, ${columns} FROM ${table} WHERE course_id = ?`,
          [to, source],
        )) as [{ affectedRows: number }]
      )[0].affectedRows,
    )
  await copy('grade_categories', 'lineage, title, weight, position')
  const units = await copy('units', 'lineage, parent_lineage, position, title, state')
  const items = await copy(
    'items',
    'lineage, parent_lineage, position, kind, title, state, exam, points, category_lineage, body_hash, media_type, settings',
  )
  await copy(content === from ? 'slots' : 'section_slots', 'lineage, slot, at', from, 'slots')
  await copy('meetings', 'position, weekday, start, `end`, room', from)
  return { items, units }
}
