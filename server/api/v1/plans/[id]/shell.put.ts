import { z } from 'zod'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { editsPlan } from '../../../../plans/access'
import { attachShell } from '../../../../plans/start'
import { attachShellRequest } from '../../../../../shared/api/plans'

/** Gives a plan that waited its shell. */
export default route({
  summary: 'Give a plan that waited its shell',
  params: planAddress,
  body: attachShellRequest,
  reply: z.object({}),
  may: editsPlan,
  run: async ({ db, person, params, body }) => {
    await attachShell(db, person, params.id, body.shell)
    return {}
  },
})
