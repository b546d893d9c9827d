import { reachesBatch } from '../../../../batches/access'
import { batchRecord } from '../../../../batches/record'
import { batchAddress, replyWithFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'The record of a batch: a line for each pair, as CSV',
  params: batchAddress,
  reply: null,
  sends: 'text/csv',
  may: reachesBatch,
  run: async ({ event, db, person, params }) =>
    replyWithFile(event, 'batch.csv', 'text/csv', await batchRecord(db, person, params.id)),
})
