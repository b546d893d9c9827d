import { runAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsRun } from '../../../../runs/access'
import { readUndo } from '../../../../runs/undo'
import { undoReply } from '../../../../../shared/api/undo'

export default route({
  summary: 'What undoing a run would do, or putting back one that was undone',
  params: runAddress,
  reply: undoReply,
  may: readsRun,
  run: ({ db, person, params }) => readUndo(db, person, params.id),
})
