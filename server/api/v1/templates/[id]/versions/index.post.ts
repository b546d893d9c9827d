import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { improvesTemplate, makeVersion } from '../../../../../sharing/versions'
import { newVersion, versionsReply } from '../../../../../../shared/api/shares'

export default route({
  summary: 'Keep what stands on a shelf as a version, and go on from it',
  params: courseAddress,
  body: newVersion,
  reply: versionsReply,
  may: improvesTemplate,
  run: ({ db, person, params, body }) => makeVersion(db, person, params.id, body),
})
