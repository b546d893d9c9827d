import { z } from 'zod'
import { ownsTheUpload } from '../../../../exchange/access'
import { discardUpload } from '../../../../exchange/uploads'
import { uploadAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'Throw a file away',
  params: uploadAddress,
  reply: z.object({}),
  may: ownsTheUpload,
  run: async ({ db, person, params }) => {
    await discardUpload(db, person, params.id)
    return {}
  },
})
