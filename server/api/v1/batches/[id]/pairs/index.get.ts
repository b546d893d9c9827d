import { reachesBatch } from '../../../../../batches/access'
import { readPairsOf } from '../../../../../batches/batches'
import { batchAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { pairsReply, pairsWish } from '../../../../../../shared/api/batches'

export default route({
  summary: 'Pairs of a batch, some at a time',
  params: batchAddress,
  query: pairsWish,
  reply: pairsReply,
  may: reachesBatch,
  run: ({ db, person, params, query }) => readPairsOf(db, person, params.id, query),
})
