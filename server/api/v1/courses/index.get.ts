import { z } from 'zod'
import { coursesReply } from '../../../../shared/api/courses'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { findCourses } from '../../../courses/lines'

export default route({
  query: z.object({ q: z.string().max(200).default('') }),
  reply: coursesReply,
  may: signedIn,
  run: ({ db, person, query }) => findCourses(db, person, query.q),
})
