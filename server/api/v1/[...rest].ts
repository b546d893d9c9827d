import { z } from 'zod'
import { anyone } from '../../auth/may'
import { Problem } from '../../http/problem'
import { route } from '../../http/route'

/** Whatever no other route takes. */
export default route({
  reply: z.never(),
  may: anyone,
  run: async ({ event }) => {
    throw new Problem(404, 'There is no such address', `${event.method} ${event.path}`)
  },
})
