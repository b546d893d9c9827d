import { isTheOffice } from '../../../auth/may'
import { listBatches } from '../../../batches/batches'
import { route } from '../../../http/route'
import { batchesReply } from '../../../../shared/api/batches'

export default route({
  summary: 'Batches that your duty in the office reaches',
  reply: batchesReply,
  may: isTheOffice,
  run: ({ db, person }) => listBatches(db, person),
})
