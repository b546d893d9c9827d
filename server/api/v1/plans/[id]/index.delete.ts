import { z } from 'zod'
import { editsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { discardPlan } from '../../../../plans/plans'

export default route({
  params: planAddress,
  reply: z.object({ discarded: z.literal(true) }),
  may: editsPlan,
  run: async ({ db, person, params }) => {
    await discardPlan(db, person, params.id)
    return { discarded: true }
  },
})
