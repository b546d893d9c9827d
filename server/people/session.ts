import type { H3Event } from 'h3'
import type { Knex } from 'knex'
import type { SessionReply } from '../../shared/api/session'
import { latestZone } from '../calendars/terms.queries'
import { shortName } from './names'
import { giveCookie, giveKnownCookie } from '../http/session'
import { findPerson, type Person } from './people.queries'
import type { Begun } from './sign-in'
import { now } from '../clock'

/** Gives the browser the cookie of a sign-in that has begun, and says who is signed in. */
export async function letIn(
  event: H3Event,
  db: Knex,
  { personId, secret, known }: Begun,
): Promise<SessionReply> {
  giveCookie(event, secret)
  if (known !== null) giveKnownCookie(event, known)
  return sessionView(db, await findPerson(db, personId))
}
/** Who is signed in and what time it is, for the top line. */
export async function sessionView(db: Knex, person: Person | null): Promise<SessionReply> {
  return {
    person: person && {
      id: person.id,
      name: shortName({ given_name: person.givenName, family_name: person.familyName }),
      // The pages of the office are the institution's; that of a department has its courses.
      duties: [
        ...new Set(
          person.duties.filter(({ duty, ofAll }) => duty !== 'office' || ofAll).map(({ duty }) => duty),
        ),
      ],
    },
    clock: {
      instant: now().toISOString(),
      timeZone: (await latestZone(db)) ?? 'UTC',
      fixed: Boolean(process.env.NORTHTIDE_NOW),
    },
  }
}
