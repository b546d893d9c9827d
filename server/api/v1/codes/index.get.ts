import { signedIn } from '../../../auth/may'
import { readCodes } from '../../../courses/codes'
import { route } from '../../../http/route'
import { codesReply } from '../../../../shared/api/codes'

export default route({
  summary: 'How course codes are read, with codes to try it on',
  reply: codesReply,
  may: signedIn,
  run: ({ db, person }) => readCodes(db, person),
})
