import { z } from 'zod'
import { id } from '../../../../shared/api/courses'
import { newPlan } from '../../../../shared/api/plans'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { startPlan } from '../../../plans/plans'

/** The service looks at both courses: who may plan depends on the shell named in the request. */
export default route({
  body: newPlan,
  reply: z.object({ id }),
  may: signedIn,
  run: async ({ db, person, body }) => ({ id: await startPlan(db, person, body) }),
})
