import { z } from 'zod'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { askForFetch } from '../../../registrar/registrar'
import { id } from '../../../../shared/api/courses'

/** Asks for the registrar's list now. */
export default route({
  summary: 'Ask for the registrar’s list now',
  reply: z.object({ id }),
  may: signedIn,
  run: ({ db, person }) => askForFetch(db, person),
})
