import { isTheOffice, type May } from '../auth/may'
import { notFound } from '../errors/refusal'
import { isStaff } from './people.queries'

/** The academic office, of somebody who is there. */
export const officeForPerson: May<{ id: string }> = {
  name: 'is the academic office, for a person',
  allow: async ask => {
    const office = await isTheOffice.allow(ask)
    if (office !== true) return office
    return (await isStaff(ask.db, ask.params.id)) || notFound('This person')
  },
}
