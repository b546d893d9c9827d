import { z } from 'zod'
import { delegation } from '../../../../../shared/api/people'
import { delegates } from '../../../../auth/may'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { delegate } from '../../../../people/people'

/** An instructor lets an assistant run, or not. */
export default route({
  params: courseAddress,
  body: delegation,
  reply: z.object({}),
  may: delegates,
  run: async ({ db, person, params, body }) => {
    await delegate(db, person, params.id, body)
    return {}
  },
})
