import { planDateTable, tableAsCsv } from '../../../../exchange/dates-out'
import { planAddress, replyWithFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'

export default route({
  summary: 'Old and new dates of a plan as CSV',
  params: planAddress,
  reply: null,
  sends: 'text/csv',
  may: readsPlan,
  run: async ({ event, db, params }) =>
    replyWithFile(
      event,
      'northtide-plan-dates.csv',
      'text/csv',
      tableAsCsv(await planDateTable(db, params.id)),
    ),
})
