import { z } from 'zod'
import { reachesBatch } from '../../../../batches/access'
import { stopUndoing } from '../../../../batches/batches'
import { batchAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'Stop undoing a batch: the shell whose turn it is is finished, the others stay as they are',
  params: batchAddress,
  reply: z.object({}),
  may: reachesBatch,
  run: async ({ db, person, params }) => {
    await stopUndoing(db, person, params.id)
    return {}
  },
})
