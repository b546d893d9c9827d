import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { newId } from '../db/rows'
import type { MailRow } from '../db/tables'

export interface NewMail {
  recipient: string
  replyTo: string | null
  subject: string
  body: string
}
export interface Mail extends NewMail {
  id: string
  attempts: number
}
export async function insertMail(db: Knex, mail: NewMail): Promise<string> {
  const id = newId()
  await db('mails').insert({
    id,
    recipient: mail.recipient,
    reply_to: mail.replyTo,
    subject: mail.subject.slice(0, 500),
    body: mail.body,
    state: 'waiting',
    created_at: stampOf(now()),
  })
  return id
}
/** A mail that has not been sent yet. */
export async function findMail(db: Knex, id: string): Promise<Mail | null> {
  const row = await db('mails').where({ id }).whereNot({ state: 'sent' }).first()
  if (!row) return null
  const { recipient, reply_to, subject, body, attempts } = row
  return { id, recipient, replyTo: reply_to, subject, body, attempts }
}
/** Says how the sending of a mail went. */
export async function updateMail(
  db: Knex,
  id: string,
  change: Pick<MailRow, 'state' | 'problem' | 'attempts'>,
): Promise<void> {
  // Once it is sent nobody needs its text here, and it may hold a link that opens something.
  const sent = change.state === 'sent' && { sent_at: stampOf(now()), body: '' }
  await db('mails')
    .where({ id })
    .update({ ...change, ...sent })
}
