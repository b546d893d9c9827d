import { anyone } from '../../auth/may'
import { route } from '../../http/route'
import { endSession } from '../../http/session'
import { sessionView } from '../../people/session'
import { sessionReply } from '../../../shared/api/session'

export default route({
  summary: 'Sign out',
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db }) => {
    await endSession(event)
    return sessionView(db, null)
  },
})
