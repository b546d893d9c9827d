import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { listShells } from '../../../shells/shells'
import { shellsReply } from '../../../../shared/api/shells'

export default route({
  summary: 'Every course of a person, in a short line',
  reply: shellsReply,
  may: signedIn,
  run: ({ db, person }) => listShells(db, person),
})
