import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'
import { planState } from '../../../../plans/plans'
import { planStateReply } from '../../../../../shared/api/plans'

export default route({
  summary: 'How a plan stands',
  params: planAddress,
  reply: planStateReply,
  may: readsPlan,
  run: ({ db, params }) => planState(db, params.id),
})
