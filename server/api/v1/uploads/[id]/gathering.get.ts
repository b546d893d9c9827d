import { z } from 'zod'
import { ownsTheUpload } from '../../../../exchange/access'
import { readGathering } from '../../../../exchange/gathering'
import { uploadAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { gatherReply } from '../../../../../shared/api/gathering'

export default route({
  summary: 'The items of a package, and what one’s other files say of them',
  params: uploadAddress,
  query: z.object({ term: z.string().min(1, 'Choose the term.') }),
  reply: gatherReply,
  may: ownsTheUpload,
  run: ({ db, person, params, query }) => readGathering(db, person, params.id, query.term),
})
