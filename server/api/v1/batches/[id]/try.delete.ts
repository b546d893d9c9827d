import { z } from 'zod'
import { reachesBatch } from '../../../../batches/access'
import { stopTrial } from '../../../../batches/batches'
import { batchAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'Stop a dry run: the pair that is being tried is finished, the others are not begun',
  params: batchAddress,
  reply: z.object({}),
  may: reachesBatch,
  run: async ({ db, person, params }) => {
    await stopTrial(db, person, params.id)
    return {}
  },
})
