import type { Knex } from 'knex'
import type { Desk, MissingReason } from '../../core/pairing/missing'
import { now, stampOf } from '../clock'
import { newId } from '../db/rows'

export interface RequestRow {
  id: string
  personId: string
  by: string
  desk: Desk
  reason: MissingReason
  term: { code: string; name: string }
  code: string
  section: string
  words: string
  state: 'open' | 'arrived' | 'answered' | 'closed'
  answer: string | null
  courseId: string | null
  createdAt: string
  updatedAt: string
  mail: { id: string; state: 'waiting' | 'sent' | 'failed'; problem: string | null } | null
}
const requests = (db: Knex) =>
  db('requests')
    .join('people', 'people.id', 'requests.person_id')
    .join('terms', 'terms.id', 'requests.term_id')
    .leftJoin('mails', 'mails.id', 'requests.mail_id')
    .select('requests.*', 'given_name', 'family_name', {
      term_code: 'terms.code',
      term_name: 'terms.name',
      mail_state: 'mails.state',
      mail_problem: 'mails.problem',
    })
    .orderBy('requests.id', 'desc')
const requestOf = (row: Record<string, string | null>): RequestRow => ({
  id: row.id!,
  personId: row.person_id!,
  by: `${row.given_name} ${row.family_name}`,
  desk: row.desk as RequestRow['desk'],
  reason: row.reason as MissingReason,
  term: { code: row.term_code!, name: row.term_name! },
  code: row.code!,
  section: row.section!,
  words: row.words!,
  state: row.state as RequestRow['state'],
  answer: row.answer!,
  courseId: row.course_id!,
  createdAt: row.created_at!,
  updatedAt: row.updated_at!,
  mail: row.mail_id
    ? { id: row.mail_id, state: row.mail_state as 'sent', problem: row.mail_problem ?? null }
    : null,
})
export async function insertRequest(
  db: Knex,
  request: {
    personId: string
    desk: string
    reason: string
    termId: string
    code: string
    section: string
    words: string
    mailId: string | null
  },
): Promise<string> {
  const id = newId()
  const at = stampOf(now())
  await db('requests').insert({
    id,
    person_id: request.personId,
    desk: request.desk,
    reason: request.reason,
    term_id: request.termId,
    code: request.code,
    section: request.section,
    words: request.words,
    mail_id: request.mailId,
    state: 'open',
    created_at: at,
    updated_at: at,
  })
  return id
}
/** Requests of a person; of everybody where none is named. */
export async function listRequests(db: Knex, personId: string | null): Promise<RequestRow[]> {
  const query = requests(db).limit(500)
  if (personId) void query.where({ 'requests.person_id': personId })
  return (await query).map(requestOf)
}
export async function findRequest(db: Knex, id: string): Promise<RequestRow | null> {
  const row = await requests(db).where('requests.id', id).first()
  return row ? requestOf(row) : null
}
export async function updateRequest(
  db: Knex,
  id: string,
  change: { state?: RequestRow['state']; answer?: string },
): Promise<void> {
  await db('requests')
    .where({ id })
    .update({ ...change, updated_at: stampOf(now()) })
}

/** Open requests whose shell has come, with their person on it, are said to have arrived. */
export async function arriveRequests(db: Knex): Promise<void> {
  const [rows] =
    (await db.raw(`SELECT requests.id, MIN(courses.id) AS course_id FROM requests JOIN courses ON courses.term_id = requests.term_id AND courses.origin = 'registrar' AND courses.missing_since IS NULL
    AND REPLACE(UPPER(courses.code), ' ', '') = REPLACE(UPPER(requests.code), ' ', '') AND (requests.section = '' OR courses.section = requests.section)
    JOIN enrolments ON enrolments.course_id = courses.id AND enrolments.person_id = requests.person_id AND enrolments.dropped_at IS NULL AND (enrolments.role = 'instructor')
    WHERE requests.state = 'open' GROUP BY requests.id`)) as [{ id: string; course_id: string }[]]
  for (const row of rows)
    await db('requests')
      .where({ id: row.id, state: 'open' })
      .update({ state: 'arrived', course_id: row.course_id, updated_at: stampOf(now()) })
}
