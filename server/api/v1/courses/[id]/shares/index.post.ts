import { newShare, shareMade } from '../../../../../../shared/api/shares'
import { sharesCourse } from '../../../../../auth/may'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { share } from '../../../../../sharing/shares'

export default route({
  params: courseAddress,
  body: newShare,
  reply: shareMade,
  may: sharesCourse,
  run: ({ db, person, params, body }) => share(db, person, params.id, body),
})
