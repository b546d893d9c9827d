import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { runsPlan } from '../../../../plans/access'
import { runPlan } from '../../../../runs/runs'
import { runRequest, runStarted } from '../../../../../shared/api/plans'

export default route({
  summary: 'Run a plan',
  params: planAddress,
  body: runRequest,
  reply: runStarted,
  may: runsPlan,
  run: async ({ db, person, params, body }) => ({
    id: await runPlan(db, person, params.id, body.fingerprint),
  }),
})
