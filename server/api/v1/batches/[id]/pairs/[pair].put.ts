import { z } from 'zod'
import { reachesBatch } from '../../../../../batches/access'
import { changePair } from '../../../../../batches/batches'
import { batchPairAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { pairChange } from '../../../../../../shared/api/batches'

export default route({
  summary: 'Check a pair of a batch again, let it run as it is, or leave it out',
  params: batchPairAddress,
  body: pairChange,
  reply: z.object({}),
  may: reachesBatch,
  run: async ({ db, person, params, body }) => {
    await changePair(db, person, params.id, params.pair, body.do)
    return {}
  },
})
