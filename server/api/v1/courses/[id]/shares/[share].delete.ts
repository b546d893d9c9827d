import { z } from 'zod'
import { sharesCourse } from '../../../../../courses/access'
import { shareAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { revokeShare } from '../../../../../sharing/shares'

export default route({
  summary: 'End a share',
  params: shareAddress,
  reply: z.object({}),
  may: sharesCourse,
  run: async ({ db, person, params }) => {
    await revokeShare(db, person, params.id, params.share)
    return {}
  },
})
