import { ownsTheUpload } from '../../../../exchange/access'
import { viewUpload } from '../../../../exchange/uploads'
import { uploadAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { uploadReply } from '../../../../../shared/api/uploads'

export default route({
  summary: 'What was found in a file, and what one may do with it',
  params: uploadAddress,
  reply: uploadReply,
  may: ownsTheUpload,
  run: ({ db, person, params }) => viewUpload(db, person, params.id),
})
