import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { newId } from '../db/rows'

export interface Mail {
  id: string
  recipient: string
  replyTo: string | null
  subject: string
  body: string
  attempts: number
}
export async function insertMail(
  db: Knex,
  mail: { recipient: string; replyTo: string | null; subject: string; body: string },
): Promise<string> {
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
export async function findMail(db: Knex, id: string): Promise<Mail | null> {
  const row = await db('mails').where({ id }).whereNot({ state: 'sent' }).first()
  return row
    ? {
        id: row.id,
        recipient: row.recipient,
        replyTo: row.reply_to,
        subject: row.subject,
        body: row.body,
        attempts: row.attempts,
      }
    : null
}
export async function markMail(
  db: Knex,
  id: string,
  state: 'sent' | 'waiting' | 'failed',
  problem: string | null,
  attempts: number,
): Promise<void> {
  await db('mails')
    .where({ id })
    .update({ state, problem, attempts, ...(state === 'sent' && { sent_at: stampOf(now()) }) })
}
