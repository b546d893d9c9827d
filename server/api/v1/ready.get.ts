import { z } from 'zod'
import { anyone } from '../../auth/may'
import { isSchemaCurrent, readATable } from '../../db/health'
import { refuse } from '../../errors/refusal'
import { route } from '../../http/route'

/** 200 where requests may be sent here: beside what `/health` asks, the schema is the one that this application works with. */
export default route({
  summary: 'Whether this application is ready for requests',
  reply: z.object({ ready: z.literal(true) }),
  may: anyone,
  run: async ({ db }) => {
    await readATable(db)
    if (!(await isSchemaCurrent(db))) throw refuse('schema-not-current')
    return { ready: true }
  },
})
