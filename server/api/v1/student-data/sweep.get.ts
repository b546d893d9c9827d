import { sweepReply } from '../../../../shared/api/clearing'
import { isTheOffice } from '../../../auth/may'
import { route } from '../../../http/route'
import { readSweep } from '../../../student-data/clearing'

export default route({
  summary: 'Courses rolled in place, in which last term’s students still stand',
  reply: sweepReply,
  may: isTheOffice,
  run: ({ db, person }) => readSweep(db, person),
})
