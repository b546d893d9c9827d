import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'
import { readWorth } from '../../../../plans/worth'
import { worthReply } from '../../../../../shared/api/worth'

export default route({
  summary: 'What of a plan’s sources is worth a look before it comes',
  params: planAddress,
  reply: worthReply,
  may: readsPlan,
  run: ({ db, person, params }) => readWorth(db, person, params.id),
})
