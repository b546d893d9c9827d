import { readsCourse } from '../../../../courses/access'
import { readCourse } from '../../../../courses/lines'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { courseReply } from '../../../../../shared/api/courses'

export default route({
  summary: 'A course to read, without anything about single students',
  params: courseAddress,
  reply: courseReply,
  may: readsCourse,
  run: ({ db, person, params }) => readCourse(db, person, params.id),
})
