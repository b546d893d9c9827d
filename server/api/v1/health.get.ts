import { z } from 'zod'
import { anyone } from '../../auth/may'
import { route } from '../../http/route'

/** Whether the application and its database answer. */
export default route({
  reply: z.object({ ok: z.literal(true) }),
  may: anyone,
  run: async ({ db }) => {
    await db.raw('SELECT 1')
    return { ok: true }
  },
})
