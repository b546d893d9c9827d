import type { Knex } from 'knex'
import type { SignInsReply } from '../../shared/api/session'
import { guessing } from '../auth/guesses'
import { forgetBrowsersOf, insertKnownBrowser, isKnownBrowser } from '../auth/known-browsers.queries'
import { checkPassword } from '../auth/password-policy'
import { hashPassword, verifyPassword } from '../auth/passwords'
import { hashOfSecret } from '../auth/secrets'
import * as sessions from '../auth/sessions.queries'
import { isoInstant } from '../clock'
import { inTransaction } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import { postMail } from '../mail/mail'
import * as queries from './people.queries'
import type { Person } from './people.queries'

/** The browser and the address that somebody signs in from. */
export interface From {
  device: string
  address: string
  /** The secret by which a browser is known, where it has one. */
  known?: string | null
}
/** A sign-in that has begun: whose, and the secret for its cookie. */
export interface Begun {
  personId: string
  secret: string
  /** The secret by which the browser is known from now on; null: it was known already. */
  known: string | null
}

/** Begins a sign-in of a person, within the transaction of what lets them in. */
export async function beginSession(
  trx: Knex,
  personId: string,
  device: string,
  isKnown: boolean,
): Promise<Begun> {
  const { secret } = await sessions.insertSession(trx, personId, device)
  await writeLog(trx, { action: 'sign-in.started', personId, detail: { device } })
  return { personId, secret, known: isKnown ? null : await insertKnownBrowser(trx, personId) }
}
/**
 * Signs a person in by name and password. Takes as long where nobody has the name; what fails is in the log, without what was typed
 * where that is nobody's name. @throws Refusal
 */
export async function signIn(
  db: Knex,
  { login, password }: { login: string; password: string },
  { device, address, known = null }: From,
): Promise<Begun> {
  const person = await queries.findByLogin(db, login)
  const isKnown = known !== null && (await isKnownBrowser(db, known, login))
  const told = { device, name: person ? login : null }
  const whose = person ? { personId: person.id } : {}
  const isRight = await guessing(
    db,
    {
      kind: 'sign-in',
      name: login,
      address,
      known: isKnown ? hashOfSecret(known) : null,
      onStop: () => writeLog(db, { action: 'guesses.stopped', ...whose, detail: told }),
    },
    () => verifyPassword(password, person?.active ? person.password : null),
    right => right,
  )
  if (!person || !isRight) {
    await writeLog(db, { action: 'sign-in.failed', ...whose, detail: told })
    throw refuse('wrong-password')
  }
  return inTransaction(db, trx => beginSession(trx, person.id, device, isKnown))
}
/** Ends the sign-in by which somebody asks. */
export async function signOut(db: Knex, personId: string, session: string): Promise<void> {
  await inTransaction(db, async trx => {
    if (await sessions.endSession(trx, personId, session))
      await writeLog(trx, { action: 'sign-in.ended', personId })
  })
}

/** Where a person is signed in. `session`: the one by which they ask. */
export async function readSignIns(db: Knex, person: Person, session: string): Promise<SignInsReply> {
  const all = await sessions.sessionsOf(db, person.id)
  return {
    login: person.login,
    signIns: all.map(each => ({
      id: each.id,
      device: each.device,
      startedAt: isoInstant(each.startedAt),
      seenAt: isoInstant(each.seenAt),
      isThis: each.id === session,
    })),
  }
}
/** Ends a person's sign-in on another device. */
export async function endSignIn(db: Knex, person: Person, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    if (!(await sessions.endSession(trx, person.id, id))) throw notFound('This sign-in')
    await writeLog(trx, {
      action: 'sign-in.ended-elsewhere',
      personId: person.id,
      detail: { sessions: 1 },
    })
  })
}
/** Ends all of a person's sign-ins but the one by which they ask; answers how many. */
export async function endOtherSignIns(db: Knex, person: Person, session: string): Promise<number> {
  return inTransaction(db, async trx => {
    const ended = await sessions.endSessionsOf(trx, person.id, session)
    if (ended > 0)
      await writeLog(trx, {
        action: 'sign-in.ended-elsewhere',
        personId: person.id,
        detail: { sessions: ended },
      })
    return ended
  })
}

/**
 * Changes a person's own password. Every sign-in ends, this one too: it goes on under a new secret, so that nobody who has the old one
 * stays. The person is told by mail. @throws Refusal
 */
export async function changePassword(
  db: Knex,
  person: Person,
  { current, password }: { current: string; password: string },
  { device, address }: From,
): Promise<Begun> {
  const kept = await queries.findByLogin(db, person.login)
  const isRight = await guessing(
    db,
    { kind: 'sign-in', name: person.login, address },
    () => verifyPassword(current, kept?.password ?? null),
    right => right,
  )
  if (!isRight) throw refuse('current-password-wrong')
  await checkPassword(password, person)
  const hashed = await hashPassword(password)
  return inTransaction(db, async trx => {
    await queries.savePassword(trx, person.login, hashed)
    await sessions.endSessionsOf(trx, person.id)
    await writeLog(trx, { action: 'password.changed', personId: person.id })
    await tellOfPassword(trx, person)
    await forgetBrowsersOf(trx, person.id)
    const { secret } = await sessions.insertSession(trx, person.id, device)
    return { personId: person.id, secret, known: await insertKnownBrowser(trx, person.id) }
  })
}
/** Tells a person by mail, where they have an address, that their password is another. */
export async function tellOfPassword(trx: Knex, person: Person): Promise<void> {
  const recipient = await queries.emailOf(trx, person.id)
  if (!recipient) return
  await postMail(trx, person.id, {
    recipient,
    replyTo: null,
    subject: 'Your Northtide password was changed',
    body: [
      `${person.givenName}, your password for Northtide (${person.login}) was changed just now. All other sign-ins were ended.`,
      'If that was not you, tell the academic office at once: they can send you a link to set another.\n',
    ].join('\n\n'),
  })
}
