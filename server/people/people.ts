import type { Knex } from 'knex'
import type { DutyChange, PeopleReply, StaffReply } from '../../shared/api/people'
import { inTransaction } from '../db/connection'
import { writeLog } from '../log/log.queries'
import * as queries from './people.queries'
import type { Person } from './people.queries'
import { Problem } from '../http/problem'
import { hashPassword, verifyPassword } from '../auth/passwords'

/** Gives a person a password to sign in with. Students have none: they do not sign in. */
export async function setPassword(db: Knex, login: string, password: string): Promise<void> {
  await queries.savePassword(db, login, await hashPassword(password))
}

/** The person who signs in with a name and password, or null. Takes as long when there is no such name. */
export async function authenticate(
  db: Knex,
  login: string,
  password: string,
): Promise<{ id: string } | null> {
  const person = await queries.findByLogin(db, login)
  const right = await verifyPassword(password, person?.active ? person.password : null)
  return person && right ? { id: person.id } : null
}

/** Staff for the academic office: who they are and what they may do beyond their own courses. */
export async function readPeople(db: Knex, text: string): Promise<PeopleReply> {
  return {
    people: await queries.listStaff(db, text.split(/\s+/).filter(Boolean), 200),
    orgs: await queries.listOrgs(db),
  }
}
/** Gives or takes a duty. The last of the academic office cannot be taken: nobody could give it back. */
export async function changeDuty(
  db: Knex,
  person: Person,
  personId: string,
  change: DutyChange,
): Promise<void> {
  await inTransaction(db, async trx => {
    const org = (await queries.listOrgs(trx)).find(entry => entry.id === change.org)
    if (!org)
      throw new Problem(400, 'There is no such department', undefined, [
        { field: 'org', message: 'Choose one of the list.' },
      ])
    await queries.setDuty(trx, personId, change.org, change.duty, change.holds)
    if (!change.holds && change.duty === 'office' && (await queries.countOffice(trx)) === 0)
      throw new Problem(
        409,
        'Somebody must be the academic office',
        'This is the last one who is. Give the duty to another person first; nothing was changed.',
      )
    await writeLog(trx, {
      action: change.holds ? 'duty.given' : 'duty.taken',
      personId: person.id,
      detail: { person: personId, duty: change.duty, department: org.name },
    })
  })
}
/** Those who work in a course, and who of its assistants may run. */
export const readStaff = async (db: Knex, courseId: string): Promise<StaffReply> => ({
  staff: await queries.staffOf(db, courseId),
})
export async function delegate(
  db: Knex,
  person: Person,
  courseId: string,
  change: { person: string; mayRun: boolean },
): Promise<void> {
  await inTransaction(db, async trx => {
    if (!(await queries.setMayRun(trx, courseId, change.person, change.mayRun)))
      throw new Problem(400, 'This person does not assist here', undefined, [
        { field: 'person', message: 'Choose an assistant of this course.' },
      ])
    await writeLog(trx, {
      action: change.mayRun ? 'run.allowed' : 'run.disallowed',
      personId: person.id,
      courseId,
      detail: {
        person: (await queries.staffOf(trx, courseId)).find(entry => entry.personId === change.person)?.name,
      },
    })
  })
}

export { grantDuty, findPerson } from './people.queries'
