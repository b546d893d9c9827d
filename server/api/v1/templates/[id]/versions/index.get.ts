import { rollsFromCourse } from '../../../../../courses/access'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { readVersions } from '../../../../../sharing/versions'
import { versionsReply } from '../../../../../../shared/api/shares'

export default route({
  summary: 'Versions that were kept of what stands on a shelf',
  params: courseAddress,
  reply: versionsReply,
  may: rollsFromCourse,
  run: ({ db, params }) => readVersions(db, params.id),
})
