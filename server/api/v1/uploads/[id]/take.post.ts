import { z } from 'zod'
import { takeRequest } from '../../../../../shared/api/uploads'
import { ownsTheUpload } from '../../../../auth/may'
import { uploadAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { askToTake } from '../../../../exchange/uploads'

export default route({
  params: uploadAddress,
  body: takeRequest,
  reply: z.object({}),
  may: ownsTheUpload,
  run: async ({ db, person, params, body }) => {
    await askToTake(db, person, params.id, body)
    return {}
  },
})
