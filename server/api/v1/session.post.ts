import { anyone } from '../../auth/may'
import { refuse } from '../../errors/refusal'
import { route } from '../../http/route'
import { startSession } from '../../http/session'
import { authenticate } from '../../people/people'
import { findPerson } from '../../people/people.queries'
import { sessionView } from '../../people/session'
import { sessionReply, signIn } from '../../../shared/api/session'

export default route({
  summary: 'Sign in',
  body: signIn,
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db, body }) => {
    const person = await authenticate(db, body.login, body.password)
    if (!person) throw refuse('wrong-password')
    await startSession(event, person.id)
    return sessionView(db, await findPerson(db, person.id))
  },
})
