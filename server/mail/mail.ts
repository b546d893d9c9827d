import type { Knex } from 'knex'
import { createTransport } from 'nodemailer'
import { z } from 'zod'
import { log } from '../http/logger'
import { addJob, endJob, postponeJob, type Job } from '../jobs/jobs.queries'
import { jobKind } from '../jobs/kind'
import * as queries from './mail.queries'

/** Where mail goes out, NORTHTIDE_SMTP_URL (smtp://host:port), and whom it is from, NORTHTIDE_MAIL_FROM; null where none is named. */
export function mailAddress(
  env: Record<string, string | undefined> = process.env,
): { url: string; from: string } | null {
  if (!env.NORTHTIDE_SMTP_URL) return null
  return { url: env.NORTHTIDE_SMTP_URL, from: env.NORTHTIDE_MAIL_FROM || 'Northtide <northtide@localhost>' }
}

/** Lays a mail down to be sent, within the transaction of what it is about. Null where no mail is set up. */
export async function postMail(
  trx: Knex,
  personId: string | null,
  mail: queries.NewMail,
): Promise<string | null> {
  if (!mailAddress()) return null
  const id = await queries.insertMail(trx, mail)
  await addJob(trx, { kind: 'mail', subject: id, personId, payload: {} })
  return id
}

async function send(mail: queries.Mail): Promise<void> {
  const address = mailAddress()
  if (!address) throw new Error('no mail server is set up')
  const transport = createTransport({
    url: address.url,
    connectionTimeout: 10_000,
    greetingTimeout: 10_000,
    socketTimeout: 20_000,
  })
  await transport.sendMail({
    from: address.from,
    to: mail.recipient,
    replyTo: mail.replyTo ?? undefined,
    subject: mail.subject,
    text: mail.body,
    // The id is the mail's own, so that one sent twice after a fault is seen to be one.
    messageId: `<${mail.id}@northtide>`,
  })
}

const triesAtMost = 5
/** Sends a mail; where that fails it is tried again after 10, 20, 40 and 80 seconds, then given up until somebody asks anew. */
async function sendMail(db: Knex, job: Job): Promise<void> {
  const mail = await queries.findMail(db, job.subject)
  if (!mail) return void (await endJob(db, job, 'done'))
  const attempts = mail.attempts + 1
  try {
    await send(mail)
    await queries.updateMail(db, mail.id, { state: 'sent', problem: null, attempts })
    await endJob(db, job, 'done')
  } catch (error) {
    const problem = (error instanceof Error ? error.message : String(error)).slice(0, 300)
    // What a mail server says may name whom the mail was for: that is the person's to read, not the log's.
    const code = error instanceof Error && 'code' in error ? error.code : undefined
    log.warn({ mail: mail.id, code }, 'a mail was not sent')
    const isLast = attempts >= triesAtMost
    await queries.updateMail(db, mail.id, { state: isLast ? 'failed' : 'waiting', problem, attempts })
    if (isLast) await endJob(db, job, 'failed', problem)
    else await postponeJob(db, job, 10 * 2 ** (attempts - 1), problem)
  }
}
/** Sends a mail that was given up once more. */
export async function sendAgain(db: Knex, id: string, personId: string): Promise<void> {
  await queries.updateMail(db, id, { state: 'waiting', problem: null, attempts: 0 })
  await addJob(db, { kind: 'mail', subject: id, personId, payload: {} })
}

/** Sends a letter; it is begun again by its own count of tries. */
export const mailJob = jobKind({
  lane: 'mail',
  isHeavy: false,
  leaseSeconds: 30,
  triesAtMost: 3,
  payload: z.object({}),
  work: sendMail,
})
