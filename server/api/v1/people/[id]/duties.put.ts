import { z } from 'zod'
import { dutyChange } from '../../../../../shared/api/people'
import { officeForPerson } from '../../../../auth/may'
import { personAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { changeDuty } from '../../../../people/people'

export default route({
  params: personAddress,
  body: dutyChange,
  reply: z.object({}),
  may: officeForPerson,
  run: async ({ db, person, params, body }) => {
    await changeDuty(db, person, params.id, body)
    return {}
  },
})
