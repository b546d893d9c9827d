import { codeRules, codesSaved } from '../../../../shared/api/codes'
import { isTheOffice } from '../../../auth/may'
import { revisionMeant } from '../../../http/addresses'
import { route } from '../../../http/route'
import { saveCodes } from '../../../courses/codes'

export default route({
  body: codeRules,
  reply: codesSaved,
  may: isTheOffice,
  run: ({ event, db, person, body }) => saveCodes(db, person, revisionMeant(event, 'the rules'), body),
})
