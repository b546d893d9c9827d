import { planAddress } from '../../../../http/addresses'
import { ownOrigin } from '../../../../http/request'
import { route } from '../../../../http/route'
import { runsPlan } from '../../../../plans/access'
import { askForRun } from '../../../../runs/run-jobs'
import { runRequest, runStarted } from '../../../../../shared/api/plans'

export default route({
  summary: 'Ask for a run of a plan; it is done off the request, and the plan says how far it is',
  params: planAddress,
  body: runRequest,
  reply: runStarted,
  may: runsPlan,
  run: ({ event, db, person, params, body }) =>
    askForRun(db, person, params.id, { fingerprint: body.fingerprint, origin: ownOrigin(event) }),
})
