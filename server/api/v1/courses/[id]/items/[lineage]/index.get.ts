import { readsCourse } from '../../../../../../courses/access'
import { readItem } from '../../../../../../courses/item'
import { itemAddress } from '../../../../../../http/addresses'
import { route } from '../../../../../../http/route'
import { itemReply } from '../../../../../../../shared/api/courses'

export default route({
  summary: 'One item of a course, to read',
  params: itemAddress,
  reply: itemReply,
  may: readsCourse,
  run: ({ db, person, params }) => readItem(db, person, params.id, params.lineage),
})
