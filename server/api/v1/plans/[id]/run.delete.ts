import { z } from 'zod'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { runsPlan } from '../../../../plans/access'
import { cancelRun } from '../../../../runs/run-jobs'

export default route({
  summary: 'Stop a run of a plan that is not written yet',
  params: planAddress,
  reply: z.object({ stopped: z.literal(true) }),
  may: runsPlan,
  run: async ({ db, person, params }) => {
    await cancelRun(db, person, params.id)
    return { stopped: true }
  },
})
