import { signedIn } from '../../../../auth/may'
import { signInAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { endSignIn, readSignIns } from '../../../../people/sign-in'
import { signInsReply } from '../../../../../shared/api/session'

/** Somebody else's sign-in is not there for anybody: the service looks among one's own. */
export default route({
  summary: 'End one of one’s sign-ins',
  params: signInAddress,
  reply: signInsReply,
  may: signedIn,
  run: async ({ db, person, session, params }) => {
    await endSignIn(db, person, params.id)
    return readSignIns(db, person, session)
  },
})
