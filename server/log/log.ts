import type { Knex } from 'knex'
import type { LogReply, LogWish } from '../../shared/api/people'
import { isoInstant } from '../clock'
import { coursesOf } from '../courses/access'
import { isOffice, type Person } from '../people/people.queries'
import { readLog } from './log.queries'

const page = 60
/**
 * A page of what was done, the newest first: all of it for the academic office; for others what they did themselves, and what
 * was done in courses they have to do with.
 */
export async function viewLog(db: Knex, person: Person, wish: LogWish): Promise<LogReply> {
  const everything = isOffice(person)
  const lines = await readLog(db, {
    words: wish.q.split(/\s+/).filter(Boolean),
    action: wish.action ?? null,
    from: wish.from ?? null,
    to: wish.to ?? null,
    before: wish.before ?? null,
    limit: page + 1,
    within: everything ? null : { personId: person.id, courses: (await coursesOf(db, person))() },
  })
  return {
    lines: lines.slice(0, page).map(line => ({ ...line, at: isoInstant(line.at) })),
    more: lines.length > page,
    everything,
  }
}
