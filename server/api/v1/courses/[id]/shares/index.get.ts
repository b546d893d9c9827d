import { sharesCourse } from '../../../../../courses/access'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { readShares } from '../../../../../sharing/shares'
import { sharesReply } from '../../../../../../shared/api/shares'

export default route({
  summary: 'Who may roll from a course',
  params: courseAddress,
  reply: sharesReply,
  may: sharesCourse,
  run: ({ db, person, params }) => readShares(db, person, params.id),
})
