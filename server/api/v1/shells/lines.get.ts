import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { shellLines } from '../../../shells/shells'
import { shellLinesReply, shellsWanted } from '../../../../shared/api/shells'

/** The service answers of the ids asked for those that the person may see. */
export default route({
  summary: 'Rows of the first page in full',
  query: shellsWanted,
  reply: shellLinesReply,
  may: signedIn,
  run: async ({ db, person, query }) => ({ shells: await shellLines(db, person, query.ids) }),
})
