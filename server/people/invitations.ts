import type { Knex } from 'knex'
import type { InvitationReply, InvitedReply } from '../../shared/api/session'
import { guessing } from '../auth/guesses'
import { forgetBrowsersOf } from '../auth/known-browsers.queries'
import { checkPassword } from '../auth/password-policy'
import { hashPassword } from '../auth/passwords'
import { endSessionsOf } from '../auth/sessions.queries'
import { inTransaction, takeTurn } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import { mailAddress, postMail } from '../mail/mail'
import * as queries from './invitations.queries'
import { emailOf, findPerson, fullNames, savePassword, type Person } from './people.queries'
import { beginSession, tellOfPassword, type Begun, type From } from './sign-in'

/** The secret stands behind `#`: what is there is sent to no server and stands in no server's log. */
const linkOf = (origin: string, secret: string): string => `${origin}/welcome#${secret}`
const letterOf = (invited: Person, by: Person, link: string): string =>
  [
    `${invited.givenName}, ${by.givenName} ${by.familyName} of the academic office invites you to Northtide, where you roll your courses into the new term.`,
    `Set your password here: ${link}`,
    `Your sign-in name is ${invited.login}. The link can be used once, within ${queries.invitationDays} days.\n`,
  ].join('\n\n')

/**
 * Makes a link by which a person sets a password, and sends it where there is mail and an address; else whoever asked hands it over.
 * An earlier link of the person ends. The office: asked of the route. @throws Refusal
 */
export async function invite(db: Knex, person: Person, id: string, origin: string): Promise<InvitationReply> {
  return inTransaction(db, async trx => {
    await takeTurn(trx, `invitation ${id}`)
    const invited = await findPerson(trx, id)
    if (!invited) throw refuse('not-active', { name: (await fullNames(trx, [id])).get(id) ?? '' })
    await queries.endInvitationsOf(trx, id)
    const link = linkOf(origin, await queries.insertInvitation(trx, id, person.id))
    const recipient = mailAddress() === null ? null : await emailOf(trx, id)
    if (recipient)
      await postMail(trx, person.id, {
        recipient,
        replyTo: await emailOf(trx, person.id),
        subject: 'Your sign-in for Northtide',
        body: letterOf(invited, person, link),
      })
    const name = `${invited.givenName} ${invited.familyName}`
    await writeLog(trx, {
      action: 'person.invited',
      personId: person.id,
      detail: { name, mailed: recipient !== null },
    })
    return { days: queries.invitationDays, mailedTo: recipient, link: recipient === null ? link : null }
  })
}
/** Takes back the link that a person has. */
export async function uninvite(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    if ((await queries.endInvitationsOf(trx, id)) === 0) throw notFound('A link for this person')
    const name = (await fullNames(trx, [id])).get(id) ?? ''
    await writeLog(trx, { action: 'person.uninvited', personId: person.id, detail: { name } })
  })
}

/** Whom a link invites. @throws Refusal where it has been used or has run out */
async function guestOf(db: Knex, secret: string, address: string): Promise<{ id: string; guest: Person }> {
  const found = await guessing(
    db,
    { kind: 'invitation', name: address, address },
    () => queries.invited(db, secret),
    invited => invited !== null,
  )
  const guest = found && (await findPerson(db, found.personId))
  if (!guest) throw refuse('invitation-ended')
  return { id: found.id, guest }
}
export async function readInvitation(db: Knex, secret: string, address: string): Promise<InvitedReply> {
  const { guest } = await guestOf(db, secret, address)
  return { name: `${guest.givenName} ${guest.familyName}`, login: guest.login }
}
/** Sets a password by a link, once, and signs the person in; every sign-in of theirs before ends. @throws Refusal */
export async function useInvitation(
  db: Knex,
  { secret, password }: { secret: string; password: string },
  { device, address }: From,
): Promise<Begun> {
  const { id, guest } = await guestOf(db, secret, address)
  await checkPassword(password, guest)
  const hashed = await hashPassword(password)
  return inTransaction(db, async trx => {
    if (!(await queries.endInvitation(trx, id))) throw refuse('invitation-ended')
    await savePassword(trx, guest.login, hashed)
    await endSessionsOf(trx, guest.id)
    await writeLog(trx, { action: 'password.set', personId: guest.id })
    await tellOfPassword(trx, guest)
    await forgetBrowsersOf(trx, guest.id)
    return beginSession(trx, guest.id, device, false)
  })
}
