import type { Knex } from 'knex'
import { anywhere, groupBy } from '../db/rows'
import type { DutyName, PersonRow } from '../db/tables'
import { fullName } from './names'

export interface Duty {
  orgId: string
  duty: DutyName
  /** It is for the whole institution: nothing stands above its organisation. */
  ofAll: boolean
}
/** Who is signed in: with what they may do beyond their own courses. */
export interface Person {
  id: string
  login: string
  givenName: string
  familyName: string
  duties: Duty[]
}
/**
 * Whether a person is the academic office of the institution: for what belongs to all, such as terms, codes, rosters and
 * people. The office of a department acts for its courses alone (`dutyReach`).
 */
export const isOffice = (person: Pick<Person, 'duties'>): boolean =>
  person.duties.some(duty => duty.duty === 'office' && duty.ofAll)

type Credentials = Pick<PersonRow, 'id' | 'password' | 'active'>
export async function findByLogin(db: Knex, login: string): Promise<Credentials | null> {
  return (await db('people').where({ login }).first('id', 'password', 'active')) ?? null
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
  if (!row?.login) return null
  const duties = await db('duties')
    .join('orgs', 'orgs.id', 'duties.org_id')
    .where({ person_id: id })
    .select('org_id', 'duty', 'parent_source_id')
  return {
    id: row.id,
    login: row.login,
    givenName: row.given_name,
    familyName: row.family_name,
    duties: duties.map(({ org_id, duty, parent_source_id }) => ({
      orgId: org_id,
      duty,
      ofAll: !parent_source_id,
    })),
  }
}
export async function emailOf(db: Knex, id: string): Promise<string | null> {
  const row = await db('people').where({ id }).first('email')
  return row?.email ?? null
}

/** Makes a person coordinator of, or academic office for, an organisation (by its source id). */
export async function grantDuty(db: Knex, login: string, orgSourceId: string, duty: DutyName): Promise<void> {
  const person = await db('people').where({ login }).first('id')
  const org = await db('orgs').where({ source_id: orgSourceId }).first('id')
  if (!person || !org)
    throw new Error(`there is no ${person ? `organisation ${orgSourceId}` : `person ${login}`}`)
  await setDuty(db, person.id, org.id, duty, true)
}
export async function setDuty(
  db: Knex,
  personId: string,
  orgId: string,
  duty: DutyName,
  holds: boolean,
): Promise<void> {
  const row = { person_id: personId, org_id: orgId, duty }
  if (holds) await db('duties').insert(row).onConflict(['person_id', 'org_id', 'duty']).ignore()
  else await db('duties').where(row).delete()
}
/** Organisations that nothing stands above. */
export const topOrgs = (db: Knex): Promise<string[]> =>
  db('orgs').whereNull('parent_source_id').orWhere({ parent_source_id: '' }).pluck('id')
/** Makes an institution where there is no organisation at all. */
export async function ensureInstitution(db: Knex, id: string, name: string): Promise<void> {
  if (await db('orgs').first('id')) return
  await db('orgs').insert({ id, source_id: `made:${id}`, name, type: 'district', parent_source_id: null })
}
/** The person of a sign-in name, made by hand where there is none. */
export async function ensurePerson(
  db: Knex,
  id: string,
  { login, givenName, familyName }: Pick<Person, 'login' | 'givenName' | 'familyName'>,
): Promise<string> {
  const there = await db('people').where({ login }).first('id')
  if (there) return there.id
  const names = { login, given_name: givenName, family_name: familyName }
  await db('people').insert({ id, source_id: `made:${login}`, ...names, active: true })
  return id
}
/** How many people who may sign in are the academic office of the institution. */
export async function countOffice(db: Knex): Promise<number> {
  const rows = await db('duties')
    .join('people', 'people.id', 'duties.person_id')
    .join('orgs', 'orgs.id', 'duties.org_id')
    .where({ duty: 'office', active: true })
    .where(top => top.whereNull('parent_source_id').orWhere({ parent_source_id: '' }))
    .distinct('person_id')
  return rows.length
}

export interface StaffMember {
  id: string
  name: string
  login: string
  active: boolean
  hasPassword: boolean
  duties: { orgId: string; org: string; duty: DutyName }[]
  instructs: number
  assists: number
}
/** Those who can sign in, by name, with their duties and how many courses they have. */
export async function listStaff(db: Knex, words: readonly string[], most: number): Promise<StaffMember[]> {
  const query = db('people')
    .whereNotNull('login')
    .orderBy(['family_name', 'given_name'])
    .limit(most)
    .select('id', 'given_name', 'family_name', 'login', 'active', 'password')
  const searched = 'CONCAT_WS(" ", given_name, family_name, login) COLLATE utf8mb4_unicode_520_ci'
  for (const word of words) void query.whereRaw(`${searched} LIKE ?`, [anywhere(word)])
  const rows = await query
  const ids = rows.map(row => row.id)
  const duties = groupBy(await dutiesOf(db, ids), duty => duty.person_id)
  const courses = groupBy(await courseRolesOf(db, ids), row => row.person_id)
  return rows.map(row => {
    const count = (role: string) => courses.get(row.id)?.filter(course => course.role === role).length ?? 0
    return {
      id: row.id,
      name: fullName(row),
      login: row.login ?? '',
      active: row.active,
      hasPassword: row.password !== null,
      instructs: count('instructor'),
      assists: count('assistant'),
      duties: (duties.get(row.id) ?? []).map(({ org_id, name, duty }) => ({
        orgId: org_id,
        org: name,
        duty,
      })),
    }
  })
}
const dutiesOf = (db: Knex, ids: readonly string[]) =>
  db('duties')
    .join('orgs', 'orgs.id', 'duties.org_id')
    .whereIn('person_id', ids)
    .orderBy('orgs.name')
    .select('person_id', 'org_id', 'name', 'duty')
const courseRolesOf = (db: Knex, ids: readonly string[]) =>
  db('enrolments')
    .whereIn('person_id', ids)
    .whereNull('dropped_at')
    .whereNull('missing_since')
    .whereIn('role', ['instructor', 'assistant'])
    .select('person_id', 'role')

/** Whether somebody can sign in. */
export async function isStaff(db: Knex, id: string): Promise<boolean> {
  return (await db('people').where({ id }).whereNotNull('login').first('id')) !== undefined
}
/** Full names by id. */
export async function fullNames(db: Knex, ids: readonly string[]): Promise<Map<string, string>> {
  const rows = await namedRows(db, ids)
  return new Map(rows.map(row => [row.id, fullName(row)]))
}
/** Names of some people, however many. */
export async function namedRows(db: Knex, ids: readonly string[]) {
  const rows: Pick<PersonRow, 'id' | 'given_name' | 'family_name'>[] = []
  for (let at = 0; at < ids.length; at += 2000) {
    const some = [...new Set(ids.slice(at, at + 2000))]
    rows.push(...(await db('people').whereIn('id', some).select('id', 'given_name', 'family_name')))
  }
  return rows
}
