import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { editsPlan } from '../../../../plans/access'
import { shareDecisions } from '../../../../plans/start'
import { alsoDone } from '../../../../../shared/api/plans'

/** Gives the decisions of this plan to the other drafts of its set. */
export default route({
  summary: 'Give the decisions to the other drafts of the set',
  params: planAddress,
  reply: alsoDone,
  may: editsPlan,
  run: ({ db, person, params }) => shareDecisions(db, person, params.id),
})
