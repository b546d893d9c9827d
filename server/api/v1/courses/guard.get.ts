import { z } from 'zod'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { guardNewCourse } from '../../../shells/shells'
import { guardReply } from '../../../../shared/api/shells'

const wish = z.object({
  term: z.string().max(100).default(''),
  code: z.string().max(60).default(''),
  section: z.string().max(20).default(''),
  title: z.string().max(200).default(''),
})
/** What stands in the way of a new course, before it is made. */
export default route({
  summary: 'What stands in the way of a new course, before it is made',
  query: wish,
  reply: guardReply,
  may: signedIn,
  run: ({ db, person, query }) => guardNewCourse(db, person, query),
})
