import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { editsPlan } from '../../../../plans/access'
import { planFurtherShells } from '../../../../plans/start'
import { alsoDone, alsoInto } from '../../../../../shared/api/plans'

/** Plans with the same sources and decisions for further shells. */
export default route({
  summary: 'Make plans with the same decisions for further shells',
  params: planAddress,
  body: alsoInto,
  reply: alsoDone,
  may: editsPlan,
  run: ({ db, person, params, body }) => planFurtherShells(db, person, params.id, body.shells),
})
