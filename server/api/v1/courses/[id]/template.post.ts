import { z } from 'zod'
import { id } from '../../../../../shared/api/courses'
import { newTemplate } from '../../../../../shared/api/shares'
import { takesFromCourse } from '../../../../auth/may'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { makeTemplate } from '../../../../sharing/shares'

export default route({
  params: courseAddress,
  body: newTemplate,
  reply: z.object({ id }),
  may: takesFromCourse,
  run: ({ db, person, params, body }) => makeTemplate(db, person, params.id, body),
})
