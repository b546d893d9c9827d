import { isTheOffice } from '../../../auth/may'
import { saveCodes } from '../../../courses/codes'
import { revisionMeant } from '../../../http/request'
import { route } from '../../../http/route'
import { codeRules, codesSaved } from '../../../../shared/api/codes'

export default route({
  summary: 'Save how course codes are read',
  body: codeRules,
  reply: codesSaved,
  may: isTheOffice,
  run: ({ event, db, person, body }) => saveCodes(db, person, revisionMeant(event, 'the rules'), body),
})
