import { worksWithCourse } from '../../../../courses/access'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readStaff } from '../../../../people/people'
import { staffReply } from '../../../../../shared/api/people'

export default route({
  summary: 'Who works in a course',
  params: courseAddress,
  reply: staffReply,
  may: worksWithCourse,
  run: ({ db, params }) => readStaff(db, params.id),
})
