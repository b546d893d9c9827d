import { anyone } from '../../auth/may'
import { route } from '../../http/route'
import { sessionOf } from '../../http/session'
import { findPerson } from '../../people/people.queries'
import { sessionView } from '../../people/session'
import { sessionReply } from '../../../shared/api/session'

export default route({
  summary: 'Who is signed in, and what time it is',
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db }) => {
    const session = await sessionOf(event, db)
    return sessionView(db, session && (await findPerson(db, session.personId)))
  },
})
