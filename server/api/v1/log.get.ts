import { logQuery, logReply } from '../../../shared/api/people'
import { signedIn } from '../../auth/may'
import { route } from '../../http/route'
import { viewLog } from '../../log/log'

/** The service shows what the person may see of it. */
export default route({
  query: logQuery,
  reply: logReply,
  may: signedIn,
  run: ({ db, person, query }) => viewLog(db, person, query),
})
