import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { readTemplates } from '../../../sharing/templates'
import { templatesReply } from '../../../../shared/api/shares'

export default route({
  summary: 'Templates one may roll from',
  reply: templatesReply,
  may: signedIn,
  run: ({ db, person }) => readTemplates(db, person),
})
