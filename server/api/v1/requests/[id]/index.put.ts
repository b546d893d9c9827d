import { z } from 'zod'
import { requestChange } from '../../../../../shared/api/requests'
import { ownsTheRequest } from '../../../../auth/may'
import { requestAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { changeRequest } from '../../../../shells/requests'

export default route({
  params: requestAddress,
  body: requestChange,
  reply: z.object({}),
  may: ownsTheRequest,
  run: async ({ db, person, params, body }) => {
    await changeRequest(db, person, params.id, body)
    return {}
  },
})
