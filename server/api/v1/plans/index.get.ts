import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { listPlans } from '../../../plans/plans'
import { plansReply } from '../../../../shared/api/plans'

export default route({
  summary: 'Plans one has to do with',
  reply: plansReply,
  may: signedIn,
  run: ({ db, person }) => listPlans(db, person),
})
