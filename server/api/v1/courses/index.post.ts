import { z } from 'zod'
import { id } from '../../../../shared/api/courses'
import { newCourse } from '../../../../shared/api/shells'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { makeCourse } from '../../../shells/shells'

export default route({
  body: newCourse,
  reply: z.object({ id }),
  may: signedIn,
  run: ({ db, person, body }) => makeCourse(db, person, body),
})
