import { keepableOf } from '../../../../habits/habits'
import { runAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsRun } from '../../../../runs/access'
import { keepableReply } from '../../../../../shared/api/habits'

export default route({
  summary: 'What a habit kept from a run would decide, and whose it may be',
  params: runAddress,
  reply: keepableReply,
  may: readsRun,
  run: ({ db, person, params }) => keepableOf(db, person, params.id),
})
