import { templatesReply } from '../../../../shared/api/shares'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { readTemplates } from '../../../sharing/shares'

export default route({
  reply: templatesReply,
  may: signedIn,
  run: ({ db, person }) => readTemplates(db, person),
})
