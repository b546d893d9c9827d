import { z } from 'zod'
import { delegates } from '../../../../courses/access'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { delegate } from '../../../../people/people'
import { delegation } from '../../../../../shared/api/people'

/** An instructor lets an assistant run, or not. */
export default route({
  summary: 'Let an assistant run plans, or not',
  params: courseAddress,
  body: delegation,
  reply: z.object({}),
  may: delegates,
  run: async ({ db, person, params, body }) => {
    await delegate(db, person, params.id, body)
    return {}
  },
})
