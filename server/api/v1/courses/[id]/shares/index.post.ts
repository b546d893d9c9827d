import { sharesCourse } from '../../../../../courses/access'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { shareCourse } from '../../../../../sharing/shares'
import { newShare, shareMade } from '../../../../../../shared/api/shares'

export default route({
  summary: 'Let others roll from a course',
  params: courseAddress,
  body: newShare,
  reply: shareMade,
  may: sharesCourse,
  run: ({ db, person, params, body }) => shareCourse(db, person, params.id, body),
})
