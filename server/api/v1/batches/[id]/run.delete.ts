import { z } from 'zod'
import { reachesBatch } from '../../../../batches/access'
import { stopBatch } from '../../../../batches/batches'
import { batchAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'Stop a batch: what is being written is finished, what waits is not begun',
  params: batchAddress,
  reply: z.object({}),
  may: reachesBatch,
  run: async ({ db, person, params }) => {
    await stopBatch(db, person, params.id)
    return {}
  },
})
