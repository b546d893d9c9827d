import { courseReply } from '../../../../../shared/api/courses'
import { readsCourse } from '../../../../auth/may'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readCourse } from '../../../../courses/lines'

export default route({
  params: courseAddress,
  reply: courseReply,
  may: readsCourse,
  run: ({ db, person, params }) => readCourse(db, person, params.id),
})
