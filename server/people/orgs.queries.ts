import type { Knex } from 'knex'
import type { OrgRow } from '../db/tables'

export type Org = Pick<OrgRow, 'id' | 'name'>

export const listOrgs = (db: Knex): Promise<Org[]> => db('orgs').orderBy('name').select('id', 'name')
export const orgsById = (db: Knex, ids: readonly string[]): Promise<Org[]> =>
  db('orgs').whereIn('id', ids).orderBy('name').select('id', 'name')
export async function orgName(db: Knex, id: string): Promise<string | null> {
  const row = await db('orgs').where({ id }).first('name')
  return row?.name ?? null
}
/** Every organisation with the one above it: the tree that duties reach down. */
export const orgTree = (db: Knex): Promise<Pick<OrgRow, 'id' | 'source_id' | 'parent_source_id'>[]> =>
  db('orgs').select('id', 'source_id', 'parent_source_id')

/**
 * The organisation that a person's new course belongs to: that of a course which the registrar lists them on, else of their
 * duty. Courses they made themselves say nothing: nobody makes themselves a member of a department.
 */
export async function homeOrg(db: Knex, personId: string): Promise<string | null> {
  const course = await db('enrolments')
    .join('courses', 'courses.id', 'enrolments.course_id')
    .where({ person_id: personId })
    .where('enrolments.origin', 'registrar')
    .whereNull('dropped_at')
    .whereNull('enrolments.missing_since')
    .whereIn('role', ['instructor', 'assistant'])
    .orderBy('courses.id', 'desc')
    .first('org_id')
  if (course) return course.org_id
  const duty = await db('duties').where({ person_id: personId }).first('org_id')
  return duty?.org_id ?? null
}
