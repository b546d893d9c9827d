import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { readRequests } from '../../../shells/requests'
import { requestsReply } from '../../../../shared/api/requests'

export default route({
  summary: 'Requests for missing shells',
  reply: requestsReply,
  may: signedIn,
  run: ({ db, person }) => readRequests(db, person),
})
