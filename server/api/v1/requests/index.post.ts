import { z } from 'zod'
import { id } from '../../../../shared/api/courses'
import { newRequest } from '../../../../shared/api/requests'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { sendRequest } from '../../../shells/requests'

export default route({
  body: newRequest,
  reply: z.object({ id }),
  may: signedIn,
  run: ({ db, person, body }) => sendRequest(db, person, body),
})
