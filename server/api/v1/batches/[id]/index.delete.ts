import { z } from 'zod'
import { reachesBatch } from '../../../../batches/access'
import { discardBatch } from '../../../../batches/batches'
import { batchAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'Discard a batch that was never run, with the drafts it made',
  params: batchAddress,
  reply: z.object({}),
  may: reachesBatch,
  run: async ({ db, person, params }) => {
    await discardBatch(db, person, params.id)
    return {}
  },
})
