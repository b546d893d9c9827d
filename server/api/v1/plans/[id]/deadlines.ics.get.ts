import { planDeadlines } from '../../../../exchange/dates-out'
import { planAddress, replyWithFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'

export default route({
  summary: 'New deadlines of a plan as iCalendar',
  params: planAddress,
  reply: null,
  sends: 'text/calendar',
  may: readsPlan,
  run: async ({ event, db, params }) =>
    replyWithFile(event, 'northtide-plan-deadlines.ics', 'text/calendar', await planDeadlines(db, params.id)),
})
