import { signedIn } from '../../../../auth/may'
import { route } from '../../../../http/route'
import { readSignIns } from '../../../../people/sign-in'
import { signInsReply } from '../../../../../shared/api/session'

export default route({
  summary: 'Where one is signed in',
  reply: signInsReply,
  may: signedIn,
  run: ({ db, person, session }) => readSignIns(db, person, session),
})
