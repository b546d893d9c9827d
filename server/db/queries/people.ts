import type { Knex } from 'knex'

export interface Duty { orgId: string, duty: 'coordinator' | 'office' }
/** Who is signed in: with what they may do beyond their own courses. */
export interface Person { id: string, login: string, givenName: string, familyName: string, duties: Duty[] }

export async function findByLogin(db: Knex, login: string): Promise<{ id: string, password: string | null, active: boolean } | null> {
  const row = await db('people').where({ login }).first('id', 'password', 'active')
  return row ? { id: row.id, password: row.password, active: Boolean(row.active) } : null
}

export async function savePassword(db: Knex, login: string, password: string): Promise<void> {
  const changed = await db('people').where({ login }).update({ password })
  if (changed === 0) throw new Error(`there is nobody with the login ${login}`)
}

export async function findPerson(db: Knex, id: string): Promise<Person | null> {
  const row = await db('people').where({ id, active: true }).whereNotNull('login').first('id', 'login', 'given_name', 'family_name')
  if (!row) return null
  const duties = await db('duties').where({ person_id: id }).select('org_id', 'duty')
  return { id: row.id, login: row.login, givenName: row.given_name, familyName: row.family_name, duties: duties.map(duty => ({ orgId: duty.org_id, duty: duty.duty })) }
}

/** Makes a person coordinator of, or academic office for, an organisation (by its source id). */
export async function grantDuty(db: Knex, login: string, orgSourceId: string, duty: Duty['duty']): Promise<void> {
  const person = await db('people').where({ login }).first('id')
  const org = await db('orgs').where({ source_id: orgSourceId }).first('id')
  if (!person || !org) throw new Error(`there is no ${person ? `organisation ${orgSourceId}` : `person ${login}`}`)
  await db('duties').insert({ person_id: person.id, org_id: org.id, duty }).onConflict(['person_id', 'org_id', 'duty']).ignore()
}
