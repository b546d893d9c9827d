import { z } from 'zod'
import { personAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { officeForPerson } from '../../../../people/access'
import { uninvite } from '../../../../people/invitations'

export default route({
  summary: 'Take back the link by which somebody could set a password',
  params: personAddress,
  reply: z.object({}),
  may: officeForPerson,
  run: async ({ db, person, params }) => {
    await uninvite(db, person, params.id)
    return {}
  },
})
