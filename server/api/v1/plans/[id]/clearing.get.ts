import { clearingReply } from '../../../../../shared/api/clearing'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { editsPlan } from '../../../../plans/access'
import { readClearable } from '../../../../student-data/clearing'

export default route({
  summary: 'Student data that a plan may clear in the course that it writes',
  params: planAddress,
  reply: clearingReply,
  may: editsPlan,
  run: ({ db, params }) => readClearable(db, params.id),
})
