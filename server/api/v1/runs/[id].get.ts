import { runReply } from '../../../../shared/api/plans'
import { readsRun } from '../../../auth/may'
import { planAddress } from '../../../http/addresses'
import { route } from '../../../http/route'
import { readRun } from '../../../runs/runs'

export default route({
  params: planAddress,
  reply: runReply,
  may: readsRun,
  run: ({ db, person, params }) => readRun(db, person, params.id),
})
