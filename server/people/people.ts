import type { Knex } from 'knex'
import type { DutyChange, PeopleReply, StaffReply } from '../../shared/api/people'
import { isoInstant } from '../clock'
import { hashPassword } from '../auth/passwords'
import { dutyReach } from '../courses/access'
import { setMayRun, staffOf } from '../courses/staff.queries'
import { inTransaction, takeTurn } from '../db/transaction'
import { refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import { invitedAmong } from './invitations.queries'
import { listOrgs } from './orgs.queries'
import * as queries from './people.queries'
import type { Person } from './people.queries'

/** Gives a person a password to sign in with. Students have none: they do not sign in. */
export async function setPassword(db: Knex, login: string, password: string): Promise<void> {
  await queries.savePassword(db, login, await hashPassword(password))
}
/** Staff for the academic office: who they are and what they may do beyond their own courses. */
export async function readPeople(db: Knex, text: string): Promise<PeopleReply> {
  const staff = await queries.listStaff(db, text.split(/\s+/).filter(Boolean), 200)
  const invited = await invitedAmong(
    db,
    staff.map(each => each.id),
  )
  return {
    people: staff.map(each => {
      const at = invited.get(each.id)
      return { ...each, invitedAt: at ? isoInstant(at) : null }
    }),
    orgs: await listOrgs(db),
  }
}
/** Gives or takes a duty. The last of the academic office cannot be taken: nobody could give it back. */
export async function changeDuty(
  db: Knex,
  person: Person,
  personId: string,
  { org: orgId, duty, holds }: DutyChange,
): Promise<void> {
  await inTransaction(db, async trx => {
    // One change of duties at a time, and by what the person holds then: two who take each other's would leave nobody.
    await takeTurn(trx, 'duties')
    const now = await queries.findPerson(trx, person.id)
    const org = (await listOrgs(trx)).find(entry => entry.id === orgId)
    if (!org) throw refuse('unknown-department')
    // Nobody gives or takes what they do not hold there or above.
    if (!now || !(await dutyReach(trx, now)).office.has(orgId)) throw refuse('duty-beyond-reach')
    await queries.setDuty(trx, personId, orgId, duty, holds)
    if (!holds && duty === 'office' && (await queries.countOffice(trx)) === 0)
      throw refuse('last-of-the-office')
    await writeLog(trx, {
      action: holds ? 'duty.given' : 'duty.taken',
      personId: person.id,
      detail: {
        name: (await queries.fullNames(trx, [personId])).get(personId) ?? '',
        duty,
        department: org.name,
      },
    })
  })
}
/** Those who work in a course, and who of its assistants may run. */
export const readStaff = async (db: Knex, courseId: string): Promise<StaffReply> => ({
  staff: await staffOf(db, courseId),
})
/** Lets an assistant of a course run plans into it, or not. */
export async function delegate(
  db: Knex,
  person: Person,
  courseId: string,
  change: { person: string; mayRun: boolean },
): Promise<void> {
  await inTransaction(db, async trx => {
    if (!(await setMayRun(trx, courseId, change.person, change.mayRun))) throw refuse('does-not-assist')
    const staff = await staffOf(trx, courseId)
    await writeLog(trx, {
      action: change.mayRun ? 'run.allowed' : 'run.disallowed',
      personId: person.id,
      courseId,
      detail: { person: staff.find(entry => entry.personId === change.person)?.name ?? '' },
    })
  })
}

export { grantDuty } from './people.queries'
