import { route } from '../../../../http/route'
import { courseAddress } from '../../../../http/addresses'
import { deleteTemplate, keepsTemplate } from '../../../../sharing/templates'
import { templateDone } from '../../../../../shared/api/shares'

export default route({
  summary: 'Delete a template; what was rolled from it stays',
  params: courseAddress,
  reply: templateDone,
  may: keepsTemplate,
  run: ({ db, person, params }) => deleteTemplate(db, person, params.id),
})
