import type { Knex } from 'knex'
import { newId } from '../db/rows'
import { inTransaction } from '../db/transaction'
import { writeLog } from '../log/log.queries'
import { endInvitationsOf, insertInvitation } from './invitations.queries'
import { ensureInstitution, ensurePerson, setDuty, topOrgs } from './people.queries'

export interface FirstOffice {
  login: string
  givenName: string
  familyName: string
  /** Name of the institution, where none is known here yet. */
  institution: string
}
/**
 * Makes somebody the academic office of the institution, before anybody is: for an empty database, from a shell of the server. Answers
 * the secret of a link by which they set their password. Where the registrar has brought organisations since, it is done again and
 * the duty reaches them too.
 */
export async function makeFirstOffice(db: Knex, office: FirstOffice): Promise<string> {
  return inTransaction(db, async trx => {
    const personId = await ensurePerson(trx, newId(), office)
    await ensureInstitution(trx, newId(), office.institution)
    for (const org of await topOrgs(trx)) await setDuty(trx, personId, org, 'office', true)
    await endInvitationsOf(trx, personId)
    const name = `${office.givenName} ${office.familyName}`
    await writeLog(trx, { action: 'person.invited', detail: { name, mailed: false } })
    return insertInvitation(trx, personId, personId)
  })
}
