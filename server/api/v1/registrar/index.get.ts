import { registrarReply } from '../../../../shared/api/registrar'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { readRegistrar } from '../../../registrar/registrar'

export default route({
  reply: registrarReply,
  may: signedIn,
  run: ({ db, person }) => readRegistrar(db, person),
})
