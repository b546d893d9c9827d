import { shellsReply } from '../../../../shared/api/shells'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { listShells } from '../../../shells/shells'

export default route({ reply: shellsReply, may: signedIn, run: ({ db, person }) => listShells(db, person) })
