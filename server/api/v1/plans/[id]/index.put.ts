import { planAddress } from '../../../../http/addresses'
import { revisionMeant } from '../../../../http/request'
import { route } from '../../../../http/route'
import { editsPlan } from '../../../../plans/access'
import { savePlan } from '../../../../plans/plans'
import { planChange, planSaved } from '../../../../../shared/api/plans'

/** If-Match carries the revision the change was made on. */
export default route({
  summary: 'Save a plan read at a revision',
  params: planAddress,
  body: planChange,
  reply: planSaved,
  may: editsPlan,
  run: ({ event, db, person, params, body }) =>
    savePlan(db, person, params.id, revisionMeant(event, 'the plan'), body),
})
