import { runAddress, replyWithFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsRun } from '../../../../runs/access'
import { recordDocument, recordName } from '../../../../runs/record'

export default route({
  summary: 'The record of a run as JSON (docs/schemas/run-record.schema.json)',
  params: runAddress,
  reply: null,
  sends: 'application/json',
  may: readsRun,
  run: async ({ event, db, person, params }) => {
    const record = await recordDocument(db, person, params.id)
    return replyWithFile(
      event,
      `${recordName(record)}.json`,
      'application/json',
      `${JSON.stringify(record, null, 2)}\n`,
    )
  },
})
