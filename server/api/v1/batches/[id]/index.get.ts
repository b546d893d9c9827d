import { reachesBatch } from '../../../../batches/access'
import { readBatch } from '../../../../batches/batches'
import { batchAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { batchReply } from '../../../../../shared/api/batches'

export default route({
  summary: 'A batch in numbers, and how far it is',
  params: batchAddress,
  reply: batchReply,
  may: reachesBatch,
  run: ({ db, person, params }) => readBatch(db, person, params.id),
})
