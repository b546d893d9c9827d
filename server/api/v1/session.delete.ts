import { sessionReply } from '../../../shared/api/session'
import { anyone } from '../../auth/may'
import { route } from '../../http/route'
import { endSession } from '../../http/session'
import { sessionView } from '../../people/session'

export default route({
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db }) => {
    await endSession(event)
    return sessionView(db, null)
  },
})
