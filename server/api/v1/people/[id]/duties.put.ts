import { z } from 'zod'
import { personAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { officeForPerson } from '../../../../people/access'
import { changeDuty } from '../../../../people/people'
import { dutyChange } from '../../../../../shared/api/people'

export default route({
  summary: 'Give or take a duty',
  params: personAddress,
  body: dutyChange,
  reply: z.object({}),
  may: officeForPerson,
  run: async ({ db, person, params, body }) => {
    await changeDuty(db, person, params.id, body)
    return {}
  },
})
