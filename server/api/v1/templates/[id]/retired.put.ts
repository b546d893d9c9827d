import { route } from '../../../../http/route'
import { courseAddress } from '../../../../http/addresses'
import { keepsTemplate, retireTemplate } from '../../../../sharing/templates'
import { templateDone, templateRetired } from '../../../../../shared/api/shares'

export default route({
  summary: 'Retire a template, or offer it again',
  params: courseAddress,
  body: templateRetired,
  reply: templateDone,
  may: keepsTemplate,
  run: ({ db, person, params, body }) => retireTemplate(db, person, params.id, body.retired),
})
