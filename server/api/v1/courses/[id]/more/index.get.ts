import { worksWithCourse } from '../../../../../courses/access'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { readMore } from '../../../../../plans/more'
import { moreReply } from '../../../../../../shared/api/more'

export default route({
  summary: 'Units of the course a shell was filled from that are not in it yet',
  params: courseAddress,
  reply: moreReply,
  may: worksWithCourse,
  run: ({ db, person, params }) => readMore(db, person, params.id),
})
