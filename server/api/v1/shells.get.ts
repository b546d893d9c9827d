import { shellsReply } from '../../../shared/api/courses'
import { signedIn } from '../../auth/may'
import { route } from '../../http/route'
import { listShells } from '../../services/courses'

export default route({ reply: shellsReply, may: signedIn, run: ({ db, person }) => listShells(db, person) })
