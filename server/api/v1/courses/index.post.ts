import { z } from 'zod'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { makeCourse } from '../../../shells/shells'
import { id } from '../../../../shared/api/courses'
import { newCourse } from '../../../../shared/api/shells'

export default route({
  summary: 'Make a course that no registrar knows',
  body: newCourse,
  reply: z.object({ id }),
  may: signedIn,
  run: ({ db, person, body }) => makeCourse(db, person, body),
})
