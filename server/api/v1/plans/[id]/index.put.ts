import { planChange, planSaved } from '../../../../../shared/api/plans'
import { editsPlan } from '../../../../auth/may'
import { planAddress, revisionMeant } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { savePlan } from '../../../../plans/plans'

/** If-Match carries the revision the change was made on. */
export default route({
  params: planAddress,
  body: planChange,
  reply: planSaved,
  may: editsPlan,
  run: ({ event, db, person, params, body }) =>
    savePlan(db, person, params.id, revisionMeant(event, 'the plan'), body),
})
