import { z } from 'zod'
import { ownsTheUpload } from '../../../../auth/may'
import { uploadAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { discardUpload } from '../../../../exchange/uploads'

export default route({
  params: uploadAddress,
  reply: z.object({}),
  may: ownsTheUpload,
  run: async ({ db, person, params }) => {
    await discardUpload(db, person, params.id)
    return {}
  },
})
