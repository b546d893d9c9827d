import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'
import { readPlan } from '../../../../plans/plans'
import { planReply } from '../../../../../shared/api/plans'

export default route({
  summary: 'A plan with all its courses',
  params: planAddress,
  reply: planReply,
  may: readsPlan,
  run: ({ db, person, params }) => readPlan(db, person, params.id),
})
