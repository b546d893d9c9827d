import { plansReply } from '../../../../shared/api/plans'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { listPlans } from '../../../plans/plans'

export default route({ reply: plansReply, may: signedIn, run: ({ db, person }) => listPlans(db, person) })
