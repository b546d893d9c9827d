import { z } from 'zod'
import { attachShell as wanted } from '../../../../../shared/api/plans'
import { editsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { attachShell } from '../../../../plans/plans'

/** Gives a plan that waited its shell. */
export default route({
  params: planAddress,
  body: wanted,
  reply: z.object({}),
  may: editsPlan,
  run: async ({ db, person, params, body }) => {
    await attachShell(db, person, params.id, body.shell)
    return {}
  },
})
