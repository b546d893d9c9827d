import { z } from 'zod'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { startAwaited } from '../../../plans/start'
import { id } from '../../../../shared/api/courses'
import { newAwaitedPlan } from '../../../../shared/api/plans'

/** A plan for a term, or in place. The service looks at the sources named in the request. */
export default route({
  summary: 'Begin a plan for a term, or in place',
  body: newAwaitedPlan,
  reply: z.object({ id }),
  may: signedIn,
  run: async ({ db, person, body }) => ({ id: await startAwaited(db, person, body) }),
})
