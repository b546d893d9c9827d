import { anyone } from '../../auth/may'
import { route } from '../../http/route'
import { sessionPerson } from '../../http/session'
import { findPerson } from '../../people/people.queries'
import { sessionView } from '../../people/session'
import { sessionReply } from '../../../shared/api/session'

export default route({
  summary: 'Who is signed in, and what time it is',
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db }) => {
    const id = await sessionPerson(event)
    return sessionView(db, id === null ? null : await findPerson(db, id))
  },
})
