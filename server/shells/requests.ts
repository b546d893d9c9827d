import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import { codeKey } from '../../core/pairing/codes'
import { whyMissing, type Desk, type Missing } from '../../core/pairing/missing'
import { unknownCode } from '../../core/pairing/resembling'
import type {
  MissingQuestion,
  MissingReply,
  NewRequest,
  RequestChange,
  RequestsReply,
} from '../../shared/api/requests'
import { findTerm, type TermLine } from '../calendars/terms.queries'
import { isoInstant } from '../clock'
import { codeKnowledge } from '../courses/codes'
import { inTransaction, takeTurn } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import { mailAddress, postMail, sendAgain } from '../mail/mail'
import { emailOf, isOffice, type Person } from '../people/people.queries'
import { registrarFails } from '../registrar/registrar'
import * as queries from './requests.queries'
import { coursesOfTerm } from './shells.queries'

const deskNames: Record<Desk, string> = { registrar: 'Registrar', school: 'School office', help: 'Help desk' }
/** The desks' addresses: NORTHTIDE_DESK_REGISTRAR, _SCHOOL and _HELP. */
const deskAddress = (desk: Desk): string =>
  process.env[`NORTHTIDE_DESK_${desk.toUpperCase()}`] || `${desk}@localhost`

/** What was found of a shell that somebody misses. */
interface Found {
  missing: Missing
  courseId: string | null
  term: TermLine
}
/** Why a shell is not among a person's, and which desk can help. */
async function lookFor(db: Knex, person: Person, ask: MissingQuestion): Promise<Found> {
  const term = await findTerm(db, ask.term)
  if (!term) throw refuse('unknown-term', { term: ask.term })
  const { patterns } = await codeKnowledge(db)
  const key = codeKey(ask.code, patterns)
  const section = ask.section.toLowerCase()
  const courses = (await coursesOfTerm(db, term.id, person.id)).filter(
    course =>
      codeKey(course.code, patterns) === key && (section === '' || course.section.toLowerCase() === section),
  )
  const missing = whyMissing(courses, await registrarFails(db))
  const about = courses.find(course => course.section === missing.section && course.role !== null)
  return { missing, courseId: about?.id ?? null, term }
}
export async function whyNotThere(db: Knex, person: Person, ask: MissingQuestion): Promise<MissingReply> {
  const { missing, courseId } = await lookFor(db, person, ask)
  const resembling = unknownCode(ask.code, await queries.registrarCodes(db), await codeKnowledge(db))
  return { ...missing, courseId, mails: mailAddress() !== null, resembling }
}

const letterOf = (person: Person, shell: string, term: TermLine, missing: Missing, words: string): string =>
  [
    `${person.givenName} ${person.familyName} looks for the shell of ${shell} in ${term.name}.`,
    `What Northtide found: ${sayings[missing.reason]}.`,
    ...(words ? [`In their words:\n${words}`] : []),
    'This request stays open in Northtide until the shell comes or somebody closes it.\n',
  ].join('\n\n')

/** Sends a request to the desk that can help, and keeps track of it. */
export async function sendRequest(db: Knex, person: Person, ask: NewRequest): Promise<{ id: string }> {
  const { missing, term } = await lookFor(db, person, ask)
  const { desk, reason } = missing
  if (!desk) throw refuse('shell-is-there')
  const { code, section, words } = ask
  const shell = codeText(ask)
  return inTransaction(db, async trx => {
    await takeTurn(trx, `requests ${person.id}`)
    const open = (await queries.listRequests(trx, person.id)).find(
      row =>
        row.state === 'open' && row.term.code === term.code && row.code === code && row.section === section,
    )
    if (open) throw refuse('asked-already', { desk: deskNames[open.desk] })
    const mailId = await postMail(trx, person.id, {
      recipient: deskAddress(desk),
      replyTo: await emailOf(trx, person.id),
      subject: `Shell ${shell}, ${term.name}: ${sayings[reason]}`,
      body: letterOf(person, shell, term, missing, words),
    })
    const id = await queries.insertRequest(trx, {
      person_id: person.id,
      desk,
      reason,
      term_id: term.id,
      code,
      section,
      words,
      mail_id: mailId,
    })
    await writeLog(trx, {
      action: 'request.sent',
      personId: person.id,
      detail: { shell },
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
      createdAt: isoInstant(row.createdAt),
      updatedAt: isoInstant(row.updatedAt),
      mail: mail && { state: mail.state, problem: mail.problem },
    })),
  }
}
/** Closes a request, answers it, or has its mail sent again. */
export async function changeRequest(
  db: Knex,
  person: Person,
  id: string,
  change: RequestChange,
): Promise<void> {
  if (change.do === 'answer') {
    if (!isOffice(person)) throw refuse('office-only')
    if (change.answer === '') throw refuse('empty-answer')
  }
  await inTransaction(db, async trx => {
    await takeTurn(trx, `request ${id}`)
    const request = await queries.findRequest(trx, id)
    if (!request) throw notFound('This request')
    if (change.do === 'close') await queries.updateRequest(trx, id, { state: 'closed' })
    else if (change.do === 'answer')
      await queries.updateRequest(trx, id, { state: 'answered', answer: change.answer })
    else if (request.mail?.state === 'failed') await sendAgain(trx, request.mail.id, person.id)
    await writeLog(trx, {
      action: `request.${change.do}` as const,
      personId: person.id,
      detail: { shell: `${request.code}-${request.section}` },
    })
  })
}
