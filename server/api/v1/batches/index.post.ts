import { z } from 'zod'
import { isTheOffice } from '../../../auth/may'
import { makeBatch } from '../../../batches/batches'
import { ownOrigin } from '../../../http/request'
import { route } from '../../../http/route'
import { newBatch } from '../../../../shared/api/batches'
import { id } from '../../../../shared/api/courses'

/** Each pair is asked for when it is tried and when it is run: the duty must reach its courses then. */
export default route({
  summary:
    'Make a batch of pairs, by a table or of a whole term, and try every pair; nothing is written into a course',
  body: newBatch,
  reply: z.object({ id }),
  may: isTheOffice,
  run: ({ event, db, person, body }) => makeBatch(db, person, body, ownOrigin(event)),
})
