import { z } from 'zod'
import { anyone } from '../../auth/may'
import { pingDatabase } from '../../db/health'
import { route } from '../../http/route'

/** Whether the application and its database answer. */
export default route({
  summary: 'Whether the application and its database answer',
  reply: z.object({ ok: z.literal(true) }),
  may: anyone,
  run: async ({ db }) => {
    await pingDatabase(db)
    return { ok: true }
  },
})
