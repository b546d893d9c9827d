import { z } from 'zod'
import { courseMark } from '../../../../../shared/api/shells'
import { worksWithCourse } from '../../../../auth/may'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { markCourse } from '../../../../shells/shells'

/** For the person alone: nobody else sees it. */
export default route({
  params: courseAddress,
  body: courseMark,
  reply: z.object({}),
  may: worksWithCourse,
  run: async ({ db, person, params, body }) => {
    await markCourse(db, person, params.id, body)
    return {}
  },
})
