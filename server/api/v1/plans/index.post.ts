import { z } from 'zod'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { startPlan } from '../../../plans/start'
import { id } from '../../../../shared/api/courses'
import { newPlan } from '../../../../shared/api/plans'

/** The service looks at both courses: who may plan depends on the shell named in the request. */
export default route({
  summary: 'Begin a plan from sources into a shell',
  body: newPlan,
  reply: z.object({ id }),
  may: signedIn,
  run: async ({ db, person, body }) => ({ id: await startPlan(db, person, body) }),
})
