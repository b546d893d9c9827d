import { route } from '../../../../http/route'
import { courseAddress } from '../../../../http/addresses'
import { changeTemplate, keepsTemplate } from '../../../../sharing/templates'
import { newTemplate, templateDone } from '../../../../../shared/api/shares'

export default route({
  summary: 'Rename a template, or say something else of it',
  params: courseAddress,
  body: newTemplate,
  reply: templateDone,
  may: keepsTemplate,
  run: ({ db, person, params, body }) => changeTemplate(db, person, params.id, body),
})
