import { sessionReply, signIn } from '../../../shared/api/session'
import { anyone } from '../../auth/may'
import { Problem } from '../../http/problem'
import { route } from '../../http/route'
import { startSession } from '../../http/session'
import { authenticate, findPerson } from '../../people/people'
import { sessionView } from '../../people/session'

export default route({
  body: signIn,
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db, body }) => {
    const person = await authenticate(db, body.login, body.password)
    if (!person)
      throw new Problem(
        401,
        'That name and password do not belong together',
        'Check both; capital letters count in the password.',
      )
    await startSession(event, person.id)
    return sessionView(db, await findPerson(db, person.id))
  },
})
