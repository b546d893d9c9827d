import { planReply } from '../../../../../shared/api/plans'
import { readsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readPlan } from '../../../../plans/plans'

export default route({
  params: planAddress,
  reply: planReply,
  may: readsPlan,
  run: ({ db, person, params }) => readPlan(db, person, params.id),
})
