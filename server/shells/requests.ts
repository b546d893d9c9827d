import type { Knex } from 'knex'
import { codeKey } from '../../core/pairing/codes'
import { whyMissing, type Desk, type Missing } from '../../core/pairing/missing'
import type { MissingQuestion, MissingReply, NewRequest, RequestsReply } from '../../shared/api/requests'
import { inTransaction } from '../db/connection'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import * as queries from './requests.queries'
import { coursesOfTerm } from './shells.queries'
import { listTerms } from '../exchange/uploads.queries'
import { notFound, Problem } from '../http/problem'
import { codeKnowledge, isOffice } from '../courses/codes'
import { mailAddress, postMail, sendAgain } from '../mail/mail'
import { registrarTrouble } from '../registrar/registrar'
import { instantText } from '../clock'

const deskNames: Record<Desk, string> = { registrar: 'Registrar', school: 'School office', help: 'Help desk' }
/** The desks' addresses: NORTHTIDE_DESK_REGISTRAR, _SCHOOL and _HELP. */
const deskAddress = (desk: Desk): string =>
  process.env[`NORTHTIDE_DESK_${desk.toUpperCase()}`] || `${desk}@localhost`

/** Why a shell is not among a person's, and which desk can help. */
async function lookFor(
  db: Knex,
  person: Person,
  ask: MissingQuestion,
): Promise<{ missing: Missing; courseId: string | null; termId: string; termName: string }> {
  const term = (await listTerms(db)).find(entry => entry.code === ask.term)
  if (!term)
    throw new Problem(400, 'There is no such term', undefined, [
      { field: 'term', message: `${ask.term} is not a term here.` },
    ])
  const { patterns } = await codeKnowledge(db)
  const key = codeKey(ask.code, patterns)
  const found = (await coursesOfTerm(db, term.id, person.id)).filter(
    course =>
      codeKey(course.code, patterns) === key &&
      (ask.section === '' || course.section.toLowerCase() === ask.section.toLowerCase()),
  )
  const missing = whyMissing(
    found.map(course => ({ ...course, role: course.role as 'instructor' | 'assistant' | null })),
    (await registrarTrouble(db)) !== null,
  )
  const about = found.find(course => course.section === missing.section && course.role !== null)
  return { missing, courseId: about?.id ?? null, termId: term.id, termName: term.name }
}
export async function whyNotThere(db: Knex, person: Person, ask: MissingQuestion): Promise<MissingReply> {
  const { missing, courseId } = await lookFor(db, person, ask)
  return { ...missing, courseId, mails: mailAddress() !== null }
}

/** Sends a request to the desk that can help, and keeps track of it. */
export async function sendRequest(db: Knex, person: Person, ask: NewRequest): Promise<{ id: string }> {
  const { missing, termId, termName } = await lookFor(db, person, ask)
  if (!missing.desk)
    throw new Problem(409, 'This shell is there', 'Nobody needs to be asked. Look for it among your shells.')
  const open = (await queries.listRequests(db, person.id)).find(
    row =>
      row.state === 'open' &&
      row.term.code === ask.term &&
      row.code === ask.code &&
      row.section === ask.section,
  )
  if (open)
    throw new Problem(
      409,
      'You have asked for this shell already',
      `Your request to the ${deskNames[open.desk]} is open. Close it first to ask again.`,
    )
  return inTransaction(db, async trx => {
    const name = `${ask.code}${ask.section ? `-${ask.section}` : ''}`
    const email = (await trx('people').where({ id: person.id }).first('email'))?.email as string | null
    const mailId = await postMail(trx, person.id, {
      recipient: deskAddress(missing.desk!),
      replyTo: email,
      subject: `Shell ${name}, ${termName}: ${sayings[missing.reason]}`,
      body: `${person.givenName} ${person.familyName} looks for the shell of ${name} in ${termName}.\n\nWhat Northtide found: ${sayings[missing.reason]}.\n${ask.words ? `\nIn their words:\n${ask.words}\n` : ''}\nThis request stays open in Northtide until the shell comes or somebody closes it.\n`,
    })
    const id = await queries.insertRequest(trx, {
      personId: person.id,
      desk: missing.desk!,
      reason: missing.reason,
      termId,
      code: ask.code,
      section: ask.section,
      words: ask.words,
      mailId,
    })
    await writeLog(trx, {
      action: 'request.sent',
      personId: person.id,
      detail: { shell: name, term: ask.term, desk: missing.desk, reason: missing.reason },
    })
    return { id }
  })
}
const sayings: Record<Missing['reason'], string> = {
  'not-made': 'the registrar has not made it yet',
  fault: 'the registrar’s list cannot be had at the moment',
  cancelled: 'the registrar does not list it any more',
  'not-listed': 'it is there, and this person is not listed on it',
  'not-main': 'this person is listed on it, not as its main instructor',
  hidden: 'it is hidden by this person',
  there: 'it is there',
}

export async function readRequests(db: Knex, person: Person): Promise<RequestsReply> {
  const office = isOffice(person)
  const rows = await queries.listRequests(db, office ? null : person.id)
  return {
    may: { answer: office },
    requests: rows.map(({ personId, mail, ...row }) => ({
      ...row,
      own: personId === person.id,
      createdAt: instantText(row.createdAt),
      updatedAt: instantText(row.updatedAt),
      mail: mail && { state: mail.state, problem: mail.problem },
    })),
  }
}
/** Closes a request, answers it, or has its mail sent again. */
export async function changeRequest(
  db: Knex,
  person: Person,
  id: string,
  change: { do: 'close' | 'answer' | 'send-again'; answer: string },
): Promise<void> {
  const request = await queries.findRequest(db, id)
  if (!request) throw notFound('This request')
  if (change.do === 'answer' && !isOffice(person))
    throw new Problem(403, 'This is for the academic office', 'Nothing was changed.')
  if (change.do === 'answer' && change.answer === '')
    throw new Problem(400, 'The answer is empty', undefined, [
      { field: 'answer', message: 'Write what the person should know.' },
    ])
  await inTransaction(db, async trx => {
    if (change.do === 'send-again') {
      if (request.mail?.state === 'failed') await sendAgain(trx, request.mail.id, person.id)
    } else
      await queries.updateRequest(
        trx,
        id,
        change.do === 'close' ? { state: 'closed' } : { state: 'answered', answer: change.answer },
      )
    await writeLog(trx, {
      action: `request.${change.do}`,
      personId: person.id,
      detail: { request: id, shell: `${request.code}-${request.section}` },
    })
  })
}
