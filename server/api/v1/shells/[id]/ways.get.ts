import { worksWithCourse } from '../../../../courses/access'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { waysInto } from '../../../../shells/shells'
import { waysReply } from '../../../../../shared/api/shells'

export default route({
  summary: 'What can fill a shell, and what each way costs',
  params: courseAddress,
  reply: waysReply,
  may: worksWithCourse,
  run: ({ db, person, params }) => waysInto(db, person, params.id),
})
