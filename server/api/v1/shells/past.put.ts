import { isTheOffice } from '../../../auth/may'
import { revisionMeant } from '../../../http/request'
import { route } from '../../../http/route'
import { savePastRule } from '../../../shells/past'
import { pastRule, pastRuleSaved } from '../../../../shared/api/shells'

export default route({
  summary: 'Lay down when a course counts as past or archived',
  body: pastRule,
  reply: pastRuleSaved,
  may: isTheOffice,
  run: ({ event, db, person, body }) => savePastRule(db, person, revisionMeant(event, 'the rules'), body),
})
