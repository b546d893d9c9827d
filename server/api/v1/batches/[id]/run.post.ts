import { z } from 'zod'
import { reachesBatch } from '../../../../batches/access'
import { runBatch } from '../../../../batches/batches'
import { batchAddress } from '../../../../http/addresses'
import { ownOrigin } from '../../../../http/request'
import { route } from '../../../../http/route'

export default route({
  summary: 'Run every pair of a batch that is ready, or go on with one that was stopped',
  params: batchAddress,
  reply: z.object({}),
  may: reachesBatch,
  run: async ({ event, db, person, params }) => {
    await runBatch(db, person, params.id, ownOrigin(event))
    return {}
  },
})
