import type { Knex } from 'knex'
import * as queries from '../db/queries/people'
import { hashPassword, verifyPassword } from './passwords'

/** Gives a person a password to sign in with. Students have none: they do not sign in. */
export async function setPassword(db: Knex, login: string, password: string): Promise<void> {
  await queries.savePassword(db, login, await hashPassword(password))
}

/** The person who signs in with a name and password, or null. Takes as long when there is no such name. */
export async function authenticate(db: Knex, login: string, password: string): Promise<{ id: string } | null> {
  const person = await queries.findByLogin(db, login)
  const right = await verifyPassword(password, person?.active ? person.password : null)
  return person && right ? { id: person.id } : null
}

export { grantDuty, findPerson } from '../db/queries/people'
