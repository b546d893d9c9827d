import { editsCourse } from '../../../../../courses/access'
import { editCourse } from '../../../../../editing/edits'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { courseEdit, editDone } from '../../../../../../shared/api/edits'

export default route({
  summary: 'Rename, move or add something in a course itself',
  params: courseAddress,
  body: courseEdit,
  reply: editDone,
  may: editsCourse,
  run: ({ db, person, params, body }) => editCourse(db, person, params.id, body),
})
