import { clearsCourse } from '../../../../../../courses/access'
import { clearingAddress } from '../../../../../../http/addresses'
import { route } from '../../../../../../http/route'
import { clearingsReply } from '../../../../../../../shared/api/clearing'
import { readClearings, restoreClearing } from '../../../../../../student-data/clearing'

export default route({
  summary: 'Put back what was cleared in a course',
  params: clearingAddress,
  reply: clearingsReply,
  may: clearsCourse,
  run: async ({ db, person, params }) => {
    await restoreClearing(db, person, params.id, params.clearing)
    return readClearings(db, params.id)
  },
})
