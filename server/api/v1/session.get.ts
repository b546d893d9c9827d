import { sessionReply } from '../../../shared/api/session'
import { anyone } from '../../auth/may'
import { findPerson } from '../../people/people.queries'
import { route } from '../../http/route'
import { sessionPerson } from '../../http/session'
import { sessionView } from '../../people/session'

export default route({
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db }) => {
    const id = await sessionPerson(event)
    return sessionView(db, id === null ? null : await findPerson(db, id))
  },
})
