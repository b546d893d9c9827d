import type { SessionReply } from '../../shared/api/session'
import type { Person } from '../db/queries/people'
import { now } from './today'

/** Who is signed in and what time it is, for the top line. */
export function sessionView(person: Person | null): SessionReply {
  return {
    person: person && { id: person.id, name: `${person.givenName.slice(0, 1)}. ${person.familyName}`, duties: [...new Set(person.duties.map(entry => entry.duty))] },
    clock: { instant: now().toISOString(), fixed: Boolean(process.env.NORTHTIDE_NOW) },
  }
}
