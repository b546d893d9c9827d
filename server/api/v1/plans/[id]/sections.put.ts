import { z } from 'zod'
import { sectionsChosen } from '../../../../../shared/api/plans'
import { editsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { chooseSections } from '../../../../plans/plans'

/** Chooses the sections that will show the shell's content. */
export default route({
  params: planAddress,
  body: sectionsChosen,
  reply: z.object({}),
  may: editsPlan,
  run: async ({ db, person, params, body }) => {
    await chooseSections(db, person, params.id, body.sections)
    return {}
  },
})
