import { staffReply } from '../../../../../shared/api/people'
import { worksWithCourse } from '../../../../auth/may'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readStaff } from '../../../../people/people'

export default route({
  params: courseAddress,
  reply: staffReply,
  may: worksWithCourse,
  run: ({ db, params }) => readStaff(db, params.id),
})
