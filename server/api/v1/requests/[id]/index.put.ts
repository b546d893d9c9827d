import { z } from 'zod'
import { requestAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { ownsTheRequest } from '../../../../shells/access'
import { changeRequest } from '../../../../shells/requests'
import { requestChange } from '../../../../../shared/api/requests'

export default route({
  summary: 'Close a request, answer it, or send its mail again',
  params: requestAddress,
  body: requestChange,
  reply: z.object({}),
  may: ownsTheRequest,
  run: async ({ db, person, params, body }) => {
    await changeRequest(db, person, params.id, body)
    return {}
  },
})
