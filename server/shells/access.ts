import type { May } from '../auth/may'
import { notFound } from '../errors/refusal'
import { isOffice } from '../people/people.queries'
import { findRequest } from './requests.queries'

/** The one who asked, and the academic office. */
export const ownsTheRequest: May<{ id: string }> = {
  name: 'asked for the shell',
  allow: async ({ db, person, params }) => {
    const request = await findRequest(db, params.id)
    const may = request !== null && (request.personId === person.id || isOffice(person))
    return may || notFound('This request')
  },
}
