import { z } from 'zod'
import { id } from '../../../../shared/api/courses'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { askForFetch } from '../../../registrar/registrar'

/** Asks for the registrar's list now. */
export default route({
  reply: z.object({ id }),
  may: signedIn,
  run: ({ db, person }) => askForFetch(db, person),
})
