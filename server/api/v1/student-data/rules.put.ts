import { keepRules, keepRulesReply } from '../../../../shared/api/clearing'
import { isTheOffice } from '../../../auth/may'
import { revisionMeant } from '../../../http/request'
import { route } from '../../../http/route'
import { saveKeepRules } from '../../../student-data/clearing'

export default route({
  summary: 'Set how long student data that was cleared is kept aside',
  body: keepRules,
  reply: keepRulesReply,
  may: isTheOffice,
  run: ({ event, db, person, body }) => saveKeepRules(db, person, revisionMeant(event, 'the rules'), body),
})
