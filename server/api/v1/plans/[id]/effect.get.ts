import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'
import { effectOf } from '../../../../runs/effect'
import { effectReply } from '../../../../../shared/api/plans'

export default route({
  summary: 'What Run would do now, in numbers',
  params: planAddress,
  reply: effectReply,
  may: readsPlan,
  run: ({ db, params }) => effectOf(db, params.id),
})
