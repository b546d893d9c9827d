import { anyone } from '../../../auth/may'
import { clientAddress } from '../../../http/client'
import { route } from '../../../http/route'
import { readInvitation } from '../../../people/invitations'
import { invitationQuestion, invitedReply } from '../../../../shared/api/session'

/** Asked with POST, so that the secret of the link stands in no address. */
export default route({
  summary: 'Whom a link to set a password invites',
  body: invitationQuestion,
  reply: invitedReply,
  may: anyone,
  run: ({ event, db, body }) => readInvitation(db, body.secret, clientAddress(event)),
})
