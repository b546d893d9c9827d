import { uploadsReply } from '../../../../shared/api/uploads'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { listUploads } from '../../../exchange/uploads'

export default route({ reply: uploadsReply, may: signedIn, run: ({ db, person }) => listUploads(db, person) })
