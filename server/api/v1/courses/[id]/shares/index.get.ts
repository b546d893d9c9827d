import { sharesReply } from '../../../../../../shared/api/shares'
import { sharesCourse } from '../../../../../auth/may'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { readShares } from '../../../../../sharing/shares'

export default route({
  params: courseAddress,
  reply: sharesReply,
  may: sharesCourse,
  run: ({ db, person, params }) => readShares(db, person, params.id),
})
