import { z } from 'zod'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { editsPlan } from '../../../../plans/access'
import { discardPlan } from '../../../../plans/plans'

export default route({
  summary: 'Discard a draft',
  params: planAddress,
  reply: z.object({ discarded: z.literal(true) }),
  may: editsPlan,
  run: async ({ db, person, params }) => {
    await discardPlan(db, person, params.id)
    return { discarded: true }
  },
})
