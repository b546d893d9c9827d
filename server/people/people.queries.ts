import type { Knex } from 'knex'
import { anywhere } from '../db/rows'

export interface Duty {
  orgId: string
  duty: 'coordinator' | 'office'
}
/** Who is signed in: with what they may do beyond their own courses. */
export interface Person {
  id: string
  login: string
  givenName: string
  familyName: string
  duties: Duty[]
}

export async function findByLogin(
  db: Knex,
  login: string,
): Promise<{ id: string; password: string | null; active: boolean } | null> {
  const row = await db('people').where({ login }).first('id', 'password', 'active')
  return row ? { id: row.id, password: row.password, active: Boolean(row.active) } : null
}

export async function savePassword(db: Knex, login: string, password: string): Promise<void> {
  const changed = await db('people').where({ login }).update({ password })
  if (changed === 0) throw new Error(`there is nobody with the login ${login}`)
}

export async function findPerson(db: Knex, id: string): Promise<Person | null> {
  const row = await db('people')
    .where({ id, active: true })
    .whereNotNull('login')
    .first('id', 'login', 'given_name', 'family_name')
  if (!row) return null
  const duties = await db('duties').where({ person_id: id }).select('org_id', 'duty')
  return {
    id: row.id,
    login: row.login,
    givenName: row.given_name,
    familyName: row.family_name,
    duties: duties.map(duty => ({ orgId: duty.org_id, duty: duty.duty })),
  }
}

/** Makes a person coordinator of, or academic office for, an organisation (by its source id). */
export async function grantDuty(
  db: Knex,
  login: string,
  orgSourceId: string,
  duty: Duty['duty'],
): Promise<void> {
  const person = await db('people').where({ login }).first('id')
  const org = await db('orgs').where({ source_id: orgSourceId }).first('id')
  if (!person || !org)
    throw new Error(`there is no ${person ? `organisation ${orgSourceId}` : `person ${login}`}`)
  await db('duties')
    .insert({ person_id: person.id, org_id: org.id, duty })
    .onConflict(['person_id', 'org_id', 'duty'])
    .ignore()
}

export interface StaffRow {
  id: string
  name: string
  login: string
  active: boolean
  duties: { orgId: string; org: string; duty: Duty['duty'] }[]
  instructs: number
  assists: number
}
/** Those who can sign in, by name, with their duties and how many courses they have. */
export async function listStaff(db: Knex, words: readonly string[], most: number): Promise<StaffRow[]> {
  const query = db('people')
    .whereNotNull('login')
    .orderBy('family_name')
    .orderBy('given_name')
    .limit(most)
    .select('id', 'given_name', 'family_name', 'login', 'active')
  for (const word of words)
    void query.whereRaw(
      'CONCAT_WS(" ", given_name, family_name, login) COLLATE utf8mb4_unicode_520_ci LIKE ?',
      [anywhere(word)],
    )
  const rows = await query
  const ids = rows.map(row => row.id)
  const duties = await db('duties')
    .join('orgs', 'orgs.id', 'duties.org_id')
    .whereIn('person_id', ids)
    .orderBy('orgs.name')
    .select('person_id', 'org_id', 'orgs.name', 'duty')
  const counts: { person_id: string; role: string; count: string }[] = (await db('enrolments')
    .whereIn('person_id', ids)
    .whereNull('dropped_at')
    .whereIn('role', ['instructor', 'assistant'])
    .groupBy('person_id', 'role')
    .select('person_id', 'role')
    .count({ count: '*' })) as never
  const count = (id: string, role: string): number =>
    Number(counts.find(row => row.person_id === id && row.role === role)?.count ?? 0)
  return rows.map(row => ({
    id: row.id,
    name: `${row.given_name} ${row.family_name}`,
    login: row.login,
    active: Boolean(row.active),
    instructs: count(row.id, 'instructor'),
    assists: count(row.id, 'assistant'),
    duties: duties
      .filter(duty => duty.person_id === row.id)
      .map(duty => ({ orgId: duty.org_id, org: duty.name, duty: duty.duty })),
  }))
}
export async function findStaff(db: Knex, id: string): Promise<{ id: string } | null> {
  return (await db('people').where({ id }).whereNotNull('login').first('id')) ?? null
}
export async function listOrgs(db: Knex): Promise<{ id: string; name: string }[]> {
  return db('orgs').orderBy('name').select('id', 'name')
}
export async function setDuty(
  db: Knex,
  personId: string,
  orgId: string,
  duty: Duty['duty'],
  holds: boolean,
): Promise<void> {
  if (holds)
    await db('duties')
      .insert({ person_id: personId, org_id: orgId, duty })
      .onConflict(['person_id', 'org_id', 'duty'])
      .ignore()
  else await db('duties').where({ person_id: personId, org_id: orgId, duty }).delete()
}
export async function countOffice(db: Knex): Promise<number> {
  return Number(
    (await db('duties')
      .join('people', 'people.id', 'duties.person_id')
      .where({ duty: 'office', active: true })
      .countDistinct({ count: 'person_id' })
      .first())!.count,
  )
}

/** The staff of a course, instructors first; those the registrar took off are told so. */
export async function staffOf(
  db: Knex,
  courseId: string,
): Promise<
  {
    enrolmentId: string
    personId: string
    name: string
    role: 'instructor' | 'assistant'
    primary: boolean
    mayRun: boolean
    origin: 'registrar' | 'hand'
    dropped: boolean
  }[]
> {
  const rows = await db('enrolments')
    .join('people', 'people.id', 'enrolments.person_id')
    .where({ course_id: courseId })
    .whereIn('role', ['instructor', 'assistant'])
    .orderBy([{ column: 'role' }, { column: 'is_primary', order: 'desc' }, { column: 'family_name' }])
    .select(
      'enrolments.id',
      'person_id',
      'given_name',
      'family_name',
      'role',
      'is_primary',
      'may_run',
      'origin',
      'dropped_at',
    )
  return rows.map(row => ({
    enrolmentId: row.id,
    personId: row.person_id,
    name: `${row.given_name} ${row.family_name}`,
    role: row.role,
    primary: Boolean(row.is_primary),
    mayRun: Boolean(row.may_run),
    origin: row.origin,
    dropped: row.dropped_at !== null,
  }))
}
/** Lets an assistant of a course run plans into it, or not. Answers whether there is such an assistant. */
export async function setMayRun(
  db: Knex,
  courseId: string,
  personId: string,
  mayRun: boolean,
): Promise<boolean> {
  return (
    (await db('enrolments')
      .where({ course_id: courseId, person_id: personId, role: 'assistant' })
      .whereNull('dropped_at')
      .update({ may_run: mayRun })) > 0
  )
}
