import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { readRegistrar } from '../../../registrar/registrar'
import { registrarReply } from '../../../../shared/api/registrar'

export default route({
  summary: 'What the registrar said lately, and what it changed',
  reply: registrarReply,
  may: signedIn,
  run: ({ db, person }) => readRegistrar(db, person),
})
