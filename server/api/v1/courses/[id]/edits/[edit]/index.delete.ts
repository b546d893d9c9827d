import { editsCourse } from '../../../../../../courses/access'
import { undoEdit } from '../../../../../../editing/edits'
import { editAddress } from '../../../../../../http/addresses'
import { route } from '../../../../../../http/route'
import { editsReply } from '../../../../../../../shared/api/edits'

export default route({
  summary: 'Take the latest change of a course back',
  params: editAddress,
  reply: editsReply,
  may: editsCourse,
  run: ({ db, person, params }) => undoEdit(db, person, params),
})
