import { z } from 'zod'
import { worksWithCourse } from '../../../../../courses/access'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { bringMore } from '../../../../../plans/more'
import { id } from '../../../../../../shared/api/courses'
import { moreWanted } from '../../../../../../shared/api/more'

export default route({
  summary: 'Begin a plan that brings one more unit into a shell',
  params: courseAddress,
  body: moreWanted,
  reply: z.object({ id }),
  may: worksWithCourse,
  run: async ({ db, person, params, body }) => ({ id: await bringMore(db, person, params.id, body.unit) }),
})
