import { readsPlan } from '../../../../auth/may'
import { planAddress, sendFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { planCalendar } from '../../../../exchange/dates-out'

export default route({
  params: planAddress,
  reply: null,
  may: readsPlan,
  run: async ({ event, db, params }) =>
    sendFile(event, 'northtide-plan-deadlines.ics', 'text/calendar', await planCalendar(db, params.id)),
})
