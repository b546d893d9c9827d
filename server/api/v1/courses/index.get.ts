import { z } from 'zod'
import { signedIn } from '../../../auth/may'
import { findCourses } from '../../../courses/lines'
import { route } from '../../../http/route'
import { coursesReply } from '../../../../shared/api/courses'

export default route({
  summary: 'Find courses by words',
  query: z.object({ q: z.string().max(200).default('') }),
  reply: coursesReply,
  may: signedIn,
  run: ({ db, person, query }) => findCourses(db, person, query.q),
})
