import { missingQuestion, missingReply } from '../../../../shared/api/requests'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { whyNotThere } from '../../../shells/requests'

/** Why a shell is not there, and who can help. */
export default route({
  query: missingQuestion,
  reply: missingReply,
  may: signedIn,
  run: ({ db, person, query }) => whyNotThere(db, person, query),
})
