import { ownsTheUpload } from '../../../../exchange/access'
import { readGathering } from '../../../../exchange/gathering'
import { uploadAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { gatherAsked, gatherReply } from '../../../../../shared/api/gathering'

export default route({
  summary: 'The items of a package or of a course, and what one’s files say of them',
  params: uploadAddress,
  query: gatherAsked,
  reply: gatherReply,
  may: ownsTheUpload,
  run: ({ db, person, params, query }) => readGathering(db, person, params.id, query),
})
