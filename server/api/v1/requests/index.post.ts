import { z } from 'zod'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { sendRequest } from '../../../shells/requests'
import { id } from '../../../../shared/api/courses'
import { newRequest } from '../../../../shared/api/requests'

export default route({
  summary: 'Ask a desk for a missing shell',
  body: newRequest,
  reply: z.object({ id }),
  may: signedIn,
  run: ({ db, person, body }) => sendRequest(db, person, body),
})
