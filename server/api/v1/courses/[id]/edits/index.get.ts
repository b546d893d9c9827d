import { readsCourse } from '../../../../../courses/access'
import { readEdits } from '../../../../../editing/edits'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { editsReply } from '../../../../../../shared/api/edits'

export default route({
  summary: 'The latest changes that were made in a course itself',
  params: courseAddress,
  reply: editsReply,
  may: readsCourse,
  run: ({ db, params }) => readEdits(db, params.id),
})
