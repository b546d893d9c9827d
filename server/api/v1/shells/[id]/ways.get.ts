import { waysReply } from '../../../../../shared/api/shells'
import { worksWithCourse } from '../../../../auth/may'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { waysInto } from '../../../../shells/shells'

export default route({
  params: courseAddress,
  reply: waysReply,
  may: worksWithCourse,
  run: ({ db, person, params }) => waysInto(db, person, params.id),
})
