import { alsoDone } from '../../../../../shared/api/plans'
import { editsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { shareDecisions } from '../../../../plans/plans'

/** Gives the decisions of this plan to the other drafts of its set. */
export default route({
  params: planAddress,
  reply: alsoDone,
  may: editsPlan,
  run: ({ db, person, params }) => shareDecisions(db, person, params.id),
})
