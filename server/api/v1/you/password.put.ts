import { signedIn } from '../../../auth/may'
import { clientOf } from '../../../http/client'
import { route } from '../../../http/route'
import { letIn } from '../../../people/session'
import { changePassword } from '../../../people/sign-in'
import { passwordChange, sessionReply } from '../../../../shared/api/session'

export default route({
  summary: 'Change one’s password; every other sign-in ends',
  body: passwordChange,
  reply: sessionReply,
  may: signedIn,
  run: async ({ event, db, person, body }) =>
    letIn(event, db, await changePassword(db, person, body, clientOf(event))),
})
