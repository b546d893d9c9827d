import { anyone } from '../../../auth/may'
import { clientOf } from '../../../http/client'
import { route } from '../../../http/route'
import { useInvitation } from '../../../people/invitations'
import { letIn } from '../../../people/session'
import { invitationUse, sessionReply } from '../../../../shared/api/session'

export default route({
  summary: 'Set a password by a link, and sign in',
  body: invitationUse,
  reply: sessionReply,
  may: anyone,
  run: async ({ event, db, body }) => letIn(event, db, await useInvitation(db, body, clientOf(event))),
})
