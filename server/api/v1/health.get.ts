import { z } from 'zod'
import { anyone } from '../../auth/may'
import { readATable } from '../../db/health'
import { route } from '../../http/route'

/** 200 where the application and its database answer; 503 where the database does not, or its node is out of its cluster. */
export default route({
  summary: 'Whether the application and its database answer',
  reply: z.object({ ok: z.literal(true) }),
  may: anyone,
  run: async ({ db }) => {
    await readATable(db)
    return { ok: true }
  },
})
