import { z } from 'zod'
import { rollsFromCourse } from '../../../../courses/access'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { makeTemplate } from '../../../../sharing/templates'
import { id } from '../../../../../shared/api/courses'
import { newTemplate } from '../../../../../shared/api/shares'

export default route({
  summary: 'Make a template from a course',
  params: courseAddress,
  body: newTemplate,
  reply: z.object({ id }),
  may: rollsFromCourse,
  run: ({ db, person, params, body }) => makeTemplate(db, person, params.id, body),
})
