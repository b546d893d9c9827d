import { signedIn } from '../../auth/may'
import { route } from '../../http/route'
import { viewLog } from '../../log/log'
import { logQuery, logReply } from '../../../shared/api/people'

/** The service shows what the person may see of it. */
export default route({
  summary: 'What was done, by whom and when',
  query: logQuery,
  reply: logReply,
  may: signedIn,
  run: ({ db, person, query }) => viewLog(db, person, query),
})
