import { z } from 'zod'
import { worksWithCourse } from '../../../../courses/access'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { preferCourse } from '../../../../shells/shells'
import { coursePreferences } from '../../../../../shared/api/shells'

/** For the person alone: nobody else sees it. */
export default route({
  summary: 'Pin or hide a course, or label it, for oneself alone',
  params: courseAddress,
  body: coursePreferences,
  reply: z.object({}),
  may: worksWithCourse,
  run: async ({ db, person, params, body }) => {
    await preferCourse(db, person, params.id, body)
    return {}
  },
})
