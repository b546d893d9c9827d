import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { newId, selectRows } from '../db/rows'
import type { MailRow, RequestRow } from '../db/tables'
import { fullName, type NamedRow } from '../people/names'

export interface Request {
  id: string
  personId: string
  by: string
  desk: RequestRow['desk']
  reason: RequestRow['reason']
  term: { code: string; name: string }
  code: string
  section: string
  words: string
  state: RequestRow['state']
  answer: string | null
  courseId: string | null
  createdAt: string
  updatedAt: string
  mail: Pick<MailRow, 'id' | 'state' | 'problem'> | null
}
type RequestColumns = RequestRow &
  NamedRow & {
    term_code: string
    term_name: string
    mail_state: MailRow['state'] | null
    mail_problem: string | null
  }
const requestRows = (db: Knex) =>
  db('requests')
    .join('people', 'people.id', 'requests.person_id')
    .join('terms', 'terms.id', 'requests.term_id')
    .leftJoin('mails', 'mails.id', 'requests.mail_id')
    .orderBy('requests.id', 'desc')
    .select<RequestColumns[]>('requests.*', 'given_name', 'family_name', {
      term_code: 'terms.code',
      term_name: 'terms.name',
      mail_state: 'mails.state',
      mail_problem: 'mails.problem',
    })
const mailOf = ({ mail_id, mail_state, mail_problem }: RequestColumns): Request['mail'] =>
  mail_id && mail_state ? { id: mail_id, state: mail_state, problem: mail_problem } : null
const requestFrom = (row: RequestColumns): Request => ({
  id: row.id,
  personId: row.person_id,
  by: fullName(row),
  desk: row.desk,
  reason: row.reason,
  term: { code: row.term_code, name: row.term_name },
  code: row.code,
  section: row.section,
  words: row.words,
  state: row.state,
  answer: row.answer,
  courseId: row.course_id,
  createdAt: row.created_at,
  updatedAt: row.updated_at,
  mail: mailOf(row),
})

export type NewRequestRow = Pick<
  RequestRow,
  'person_id' | 'desk' | 'reason' | 'term_id' | 'code' | 'section' | 'words' | 'mail_id'
>
export async function insertRequest(db: Knex, request: NewRequestRow): Promise<string> {
  const id = newId()
  const at = stampOf(now())
  await db('requests').insert({ ...request, id, state: 'open', created_at: at, updated_at: at })
  return id
}
/** Requests of a person; of everybody where none is named. */
export async function listRequests(db: Knex, personId: string | null): Promise<Request[]> {
  const query = requestRows(db).limit(500)
  if (personId) void query.where('requests.person_id', personId)
  return (await query).map(requestFrom)
}
export async function findRequest(db: Knex, id: string): Promise<Request | null> {
  const [row] = await requestRows(db).where('requests.id', id)
  return row ? requestFrom(row) : null
}
export async function updateRequest(
  db: Knex,
  id: string,
  change: { state?: Request['state']; answer?: string },
): Promise<void> {
  await db('requests')
    .where({ id })
    .update({ ...change, updated_at: stampOf(now()) })
}

/** The codes of all courses that the registrar has, of whatever term. */
export const registrarCodes = (db: Knex): Promise<string[]> =>
  db('courses').where({ origin: 'registrar' }).distinct().orderBy('code').pluck<string[]>('code')

/** Open requests whose shell has come, with their person on it, are said to have arrived. */
export async function arriveRequests(db: Knex): Promise<void> {
  const arrived = await selectRows<{ id: string; course_id: string }>(
    db,
    `SELECT requests.id, MIN(courses.id) AS course_id
     FROM requests
     JOIN courses
       ON courses.term_id = requests.term_id AND courses.origin = 'registrar' AND courses.missing_since IS NULL
       AND REPLACE(UPPER(courses.code), ' ', '') = REPLACE(UPPER(requests.code), ' ', '')
       AND (requests.section = '' OR courses.section = requests.section)
     JOIN enrolments
       ON enrolments.course_id = courses.id AND enrolments.person_id = requests.person_id
       AND enrolments.dropped_at IS NULL AND enrolments.missing_since IS NULL
       AND enrolments.role = 'instructor'
     WHERE requests.state = 'open'
     GROUP BY requests.id`,
    {},
  )
  for (const { id, course_id } of arrived)
    await db('requests')
      .where({ id, state: 'open' })
      .update({ state: 'arrived', course_id, updated_at: stampOf(now()) })
}
