import type { Knex } from 'knex'
import type { Refusal } from '../errors/refusal'
import { refuse } from '../errors/refusal'
import { isOffice, type Person } from '../people/people.queries'

/** Who may use a route. `allow` answers true, or the refusal to tell. Open: no session is asked for. */
export interface May<P> {
  readonly name: string
  readonly open?: true
  readonly allow: (ask: { db: Knex; person: Person; params: P }) => Promise<true | Refusal>
}

/** Anyone, signed in or not. */
export const anyone: May<unknown> = { name: 'anyone', open: true, allow: () => Promise.resolve(true) }
/** Anyone who is signed in; the service shows only what that person may see. */
export const signedIn: May<unknown> = { name: 'signed in', allow: () => Promise.resolve(true) }
/** The academic office. */
export const isTheOffice: May<unknown> = {
  name: 'is the academic office',
  allow: ({ person }) => Promise.resolve(isOffice(person) || refuse('office-only')),
}
