import { readsPlan } from '../../../../auth/may'
import { planAddress, sendFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { planDates, datesAsCsv } from '../../../../exchange/dates-out'

export default route({
  params: planAddress,
  reply: null,
  may: readsPlan,
  run: async ({ event, db, params }) =>
    sendFile(event, 'northtide-plan-dates.csv', 'text/csv', datesAsCsv(await planDates(db, params.id))),
})
