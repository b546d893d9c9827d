import { signedIn } from '../../../auth/may'
import { listUploads } from '../../../exchange/uploads'
import { route } from '../../../http/route'
import { uploadsReply } from '../../../../shared/api/uploads'

export default route({
  summary: 'Files that lie aside',
  reply: uploadsReply,
  may: signedIn,
  run: ({ db, person }) => listUploads(db, person),
})
