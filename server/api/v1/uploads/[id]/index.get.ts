import { uploadReply } from '../../../../../shared/api/uploads'
import { ownsTheUpload } from '../../../../auth/may'
import { uploadAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { viewUpload } from '../../../../exchange/uploads'

export default route({
  params: uploadAddress,
  reply: uploadReply,
  may: ownsTheUpload,
  run: ({ db, person, params }) => viewUpload(db, person, params.id),
})
