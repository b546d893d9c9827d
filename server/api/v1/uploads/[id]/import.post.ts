import { z } from 'zod'
import { ownsTheUpload } from '../../../../exchange/access'
import { askForImport } from '../../../../exchange/uploads'
import { uploadAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { importRequest } from '../../../../../shared/api/uploads'

export default route({
  summary: 'Bring a file in that has been read',
  params: uploadAddress,
  body: importRequest,
  reply: z.object({}),
  may: ownsTheUpload,
  run: async ({ db, person, params, body }) => {
    await askForImport(db, person, params.id, body)
    return {}
  },
})
