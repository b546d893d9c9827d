import { planState as reply } from '../../../../../shared/api/plans'
import { readsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { planState } from '../../../../plans/plans'

export default route({
  params: planAddress,
  reply,
  may: readsPlan,
  run: ({ db, params }) => planState(db, params.id),
})
