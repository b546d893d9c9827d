import { anyone } from '../../auth/may'
import { route } from '../../http/route'
import { sessionOf, takeCookie } from '../../http/session'
import { sessionView } from '../../people/session'
import { signOut } from '../../people/sign-in'
import { sessionReply } from '../../../shared/api/session'

export default route({
  summary: 'Sign out',
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db }) => {
    const session = await sessionOf(event, db)
    if (session) await signOut(db, session.personId, session.id)
    takeCookie(event)
    return sessionView(db, null)
  },
})
