import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { whyNotThere } from '../../../shells/requests'
import { missingQuestion, missingReply } from '../../../../shared/api/requests'

/** Why a shell is not there, and who can help. */
export default route({
  summary: 'Why a shell is not there, and who can help',
  query: missingQuestion,
  reply: missingReply,
  may: signedIn,
  run: ({ db, person, query }) => whyNotThere(db, person, query),
})
