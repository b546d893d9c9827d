import { z } from 'zod'
import { reachesBatch } from '../../../../batches/access'
import { tryRest } from '../../../../batches/batches'
import { batchAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'Go on with a dry run that was stopped',
  params: batchAddress,
  reply: z.object({}),
  may: reachesBatch,
  run: async ({ db, person, params }) => {
    await tryRest(db, person, params.id)
    return {}
  },
})
