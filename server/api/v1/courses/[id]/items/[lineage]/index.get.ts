import { itemReply } from '../../../../../../../shared/api/courses'
import { readsCourse } from '../../../../../../auth/may'
import { itemAddress } from '../../../../../../http/addresses'
import { route } from '../../../../../../http/route'
import { readItem } from '../../../../../../courses/reading'

export default route({
  params: itemAddress,
  reply: itemReply,
  may: readsCourse,
  run: ({ db, person, params }) => readItem(db, person, params.id, params.lineage),
})
