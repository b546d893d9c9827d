import { runRequest, runStarted } from '../../../../../shared/api/plans'
import { runsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { runPlan } from '../../../../runs/runs'

export default route({
  params: planAddress,
  body: runRequest,
  reply: runStarted,
  may: runsPlan,
  run: async ({ db, person, params, body }) => ({
    id: await runPlan(db, person, params.id, body.fingerprint),
  }),
})
