import { z } from 'zod'
import { reachesBatch } from '../../../../batches/access'
import { undoBatch } from '../../../../batches/batches'
import { batchAddress } from '../../../../http/addresses'
import { ownOrigin } from '../../../../http/request'
import { route } from '../../../../http/route'

export default route({
  summary: 'Undo every run of a batch whose shell stands as it was left',
  params: batchAddress,
  reply: z.object({}),
  may: reachesBatch,
  run: async ({ event, db, person, params }) => {
    await undoBatch(db, person, params.id, ownOrigin(event))
    return {}
  },
})
