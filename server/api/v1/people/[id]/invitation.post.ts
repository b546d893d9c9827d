import { personAddress } from '../../../../http/addresses'
import { ownOrigin } from '../../../../http/request'
import { route } from '../../../../http/route'
import { officeForPerson } from '../../../../people/access'
import { invite } from '../../../../people/invitations'
import { invitationReply } from '../../../../../shared/api/session'

export default route({
  summary: 'Make a link by which somebody sets a password; the one before ends',
  params: personAddress,
  reply: invitationReply,
  may: officeForPerson,
  run: ({ event, db, person, params }) => invite(db, person, params.id, ownOrigin(event)),
})
