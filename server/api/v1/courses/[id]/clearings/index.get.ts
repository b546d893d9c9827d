import { clearingsReply } from '../../../../../../shared/api/clearing'
import { clearsCourse } from '../../../../../courses/access'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { readClearings } from '../../../../../student-data/clearing'

export default route({
  summary: 'What was cleared in a course, and what of it is kept aside',
  params: courseAddress,
  reply: clearingsReply,
  may: clearsCourse,
  run: ({ db, params }) => readClearings(db, params.id),
})
