import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { bringVersionBack, improvesTemplate } from '../../../../../sharing/versions'
import { versionChosen, versionsReply } from '../../../../../../shared/api/shares'

export default route({
  summary: 'Bring a version back on a shelf',
  params: courseAddress,
  body: versionChosen,
  reply: versionsReply,
  may: improvesTemplate,
  run: ({ db, person, params, body }) => bringVersionBack(db, person, params.id, body.number),
})
