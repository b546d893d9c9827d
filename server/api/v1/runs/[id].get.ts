import { runAddress } from '../../../http/addresses'
import { route } from '../../../http/route'
import { readsRun } from '../../../runs/access'
import { readRun } from '../../../runs/runs'
import { runReply } from '../../../../shared/api/plans'

export default route({
  summary: 'The record of a run',
  params: runAddress,
  reply: runReply,
  may: readsRun,
  run: ({ db, person, params }) => readRun(db, person, params.id),
})
