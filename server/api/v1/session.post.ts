import { anyone } from '../../auth/may'
import { clientOf } from '../../http/client'
import { route } from '../../http/route'
import { letIn } from '../../people/session'
import { signIn } from '../../people/sign-in'
import { sessionReply, signInWish } from '../../../shared/api/session'

export default route({
  summary: 'Sign in',
  body: signInWish,
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db, body }) => letIn(event, db, await signIn(db, body, clientOf(event))),
})
