import { sweepDone, sweepRequest } from '../../../../shared/api/clearing'
import { isTheOffice } from '../../../auth/may'
import { route } from '../../../http/route'
import { sweep } from '../../../student-data/clearing'

export default route({
  summary: 'Take last term’s students off courses that were rolled in place',
  body: sweepRequest,
  reply: sweepDone,
  may: isTheOffice,
  run: ({ db, person, body }) => sweep(db, person, body.courses),
})
