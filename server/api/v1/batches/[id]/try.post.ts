import { z } from 'zod'
import { triedAgain } from '../../../../../shared/api/batches'
import { reachesBatch } from '../../../../batches/access'
import { tryAgain } from '../../../../batches/batches'
import { batchAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'Try the pairs that a stopped dry run has left, or those whose runs were undone',
  params: batchAddress,
  body: triedAgain,
  reply: z.object({}),
  may: reachesBatch,
  run: async ({ db, person, params, body }) => {
    await tryAgain(db, person, params.id, body.which)
    return {}
  },
})
