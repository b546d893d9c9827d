import { alsoDone, alsoInto as wanted } from '../../../../../shared/api/plans'
import { editsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { alsoInto } from '../../../../plans/plans'

/** Plans with the same sources and decisions for further shells. */
export default route({
  params: planAddress,
  body: wanted,
  reply: alsoDone,
  may: editsPlan,
  run: ({ db, person, params, body }) => alsoInto(db, person, params.id, body.shells),
})
