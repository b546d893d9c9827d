import { z } from 'zod'
import { id } from '../../../../shared/api/courses'
import { newAwaitedPlan } from '../../../../shared/api/plans'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { startAwaited } from '../../../plans/plans'

/** A plan against a term, or in place. The service looks at the sources named in the request. */
export default route({
  body: newAwaitedPlan,
  reply: z.object({ id }),
  may: signedIn,
  run: async ({ db, person, body }) => ({ id: await startAwaited(db, person, body) }),
})
