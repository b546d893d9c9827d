import { z } from 'zod'
import { sharesCourse } from '../../../../../auth/may'
import { shareAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { revoke } from '../../../../../sharing/shares'

export default route({
  params: shareAddress,
  reply: z.object({}),
  may: sharesCourse,
  run: async ({ db, person, params }) => {
    await revoke(db, person, params.id, params.share)
    return {}
  },
})
