import { effectReply } from '../../../../../shared/api/plans'
import { readsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { effectOf } from '../../../../plans/plans'

export default route({
  params: planAddress,
  reply: effectReply,
  may: readsPlan,
  run: ({ db, params }) => effectOf(db, params.id),
})
