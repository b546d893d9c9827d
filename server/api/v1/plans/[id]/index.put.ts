import { getHeader } from 'h3'
import { planChange, planSaved } from '../../../../../shared/api/plans'
import { editsPlan } from '../../../../auth/may'
import { planAddress } from '../../../../http/addresses'
import { Problem } from '../../../../http/problem'
import { route } from '../../../../http/route'
import { savePlan } from '../../../../services/plans'

/** If-Match carries the revision the change was made on. */
export default route({ params: planAddress, body: planChange, reply: planSaved, may: editsPlan, run: ({ event, db, person, params, body }) => {
  const match = /^"(\d+)"$/.exec(getHeader(event, 'if-match') ?? '')
  if (!match) throw new Problem(428, 'Which revision does this change?', 'Send If-Match with the revision of the plan that you read, such as "3".')
  return savePlan(db, person, params.id, Number(match[1]), body)
} })
