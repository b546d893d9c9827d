import { z } from 'zod'
import { runAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsRun } from '../../../../runs/access'
import { undoRun } from '../../../../runs/undo'
import { undoRequest } from '../../../../../shared/api/undo'

export default route({
  summary: 'Undo a run, or put back one that was undone; whoever may run into its course',
  params: runAddress,
  body: undoRequest,
  reply: z.object({ done: z.literal(true) }),
  may: readsRun,
  run: async ({ db, person, params, body }) => {
    await undoRun(db, person, params.id, body)
    return { done: true }
  },
})
