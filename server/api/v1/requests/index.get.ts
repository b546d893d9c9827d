import { requestsReply } from '../../../../shared/api/requests'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { readRequests } from '../../../shells/requests'

export default route({
  reply: requestsReply,
  may: signedIn,
  run: ({ db, person }) => readRequests(db, person),
})
