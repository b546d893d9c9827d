import { keepRulesReply } from '../../../../shared/api/clearing'
import { isTheOffice } from '../../../auth/may'
import { route } from '../../../http/route'
import { readKeepRules } from '../../../student-data/clearing'

export default route({
  summary: 'How long student data that was cleared is kept aside',
  reply: keepRulesReply,
  may: isTheOffice,
  run: ({ db }) => readKeepRules(db),
})
