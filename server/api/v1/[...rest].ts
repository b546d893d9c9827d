import { z } from 'zod'
import { anyone } from '../../auth/may'
import { refuse } from '../../errors/refusal'
import { route } from '../../http/route'

/** Whatever no other route takes. */
export default route({
  summary: 'Whatever no other route answers',
  reply: z.never(),
  may: anyone,
  run: async ({ event }) => {
    throw refuse('no-such-address', { address: `${event.method} ${event.path}` })
  },
})
