import { signedIn } from '../../../../auth/may'
import { route } from '../../../../http/route'
import { endOtherSignIns, readSignIns } from '../../../../people/sign-in'
import { signInsReply } from '../../../../../shared/api/session'

export default route({
  summary: 'End all one’s sign-ins but this one',
  reply: signInsReply,
  may: signedIn,
  run: async ({ db, person, session }) => {
    await endOtherSignIns(db, person, session)
    return readSignIns(db, person, session)
  },
})
