import { codesReply } from '../../../../shared/api/codes'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { readCodes } from '../../../courses/codes'

export default route({ reply: codesReply, may: signedIn, run: ({ db, person }) => readCodes(db, person) })
