import type { Knex } from 'knex'
import type { z } from 'zod'
import type { LogReply, logQuery } from '../../shared/api/people'
import { readLog } from './log.queries'
import type { Person } from '../people/people.queries'
import { isOffice } from '../courses/codes'
import { instantText } from '../clock'

const page = 60
/** A page of what was done, the newest first. */
export async function viewLog(db: Knex, person: Person, wish: z.output<typeof logQuery>): Promise<LogReply> {
  const lines = await readLog(db, person, {
    words: wish.q.split(/\s+/).filter(Boolean),
    action: wish.action ?? null,
    from: wish.from ?? null,
    to: wish.to ?? null,
    before: wish.before ?? null,
    limit: page + 1,
  })
  return {
    lines: lines.slice(0, page).map(line => ({ ...line, at: instantText(line.at) })),
    more: lines.length > page,
    everything: isOffice(person),
  }
}
