import { z } from 'zod'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { editsPlan } from '../../../../plans/access'
import { chooseSections } from '../../../../plans/sections'
import { sectionsChosen } from '../../../../../shared/api/plans'

/** Chooses the sections that will show the shell's content. */
export default route({
  summary: 'Choose the sections that will show the shell’s content',
  params: planAddress,
  body: sectionsChosen,
  reply: z.object({}),
  may: editsPlan,
  run: async ({ db, person, params, body }) => {
    await chooseSections(db, person, params.id, body.sections)
    return {}
  },
})
