import type { Knex } from 'knex'
import type { May } from '../auth/may'
import { dutyReach } from '../courses/access'
import { notFound, refuse } from '../errors/refusal'
import { isOffice, type Person } from '../people/people.queries'
import { findBatch } from './batches.queries'

/** The organisation whose batch a person makes: that of their duty in the office. @throws Refusal where they have none */
export function officeOf(person: Person): string {
  const duty = person.duties.find(each => each.duty === 'office')
  if (!duty) throw refuse('office-only')
  return duty.orgId
}
/** Whether a person's duty in the office reaches an organisation. */
export const reachesOrg = async (db: Knex, person: Person, orgId: string): Promise<boolean> =>
  (await dutyReach(db, person)).office.has(orgId)
/** The academic office, as far as its reach goes. What may be done with each pair is asked of its courses. */
export const reachesBatch: May<{ id: string }> = {
  name: 'is the office that the batch is of',
  allow: async ({ db, person, params }) => {
    if (!isOffice(person)) return refuse('office-only')
    const batch = await findBatch(db, params.id)
    return (batch !== null && (await reachesOrg(db, person, batch.orgId))) || notFound('This batch')
  },
}
