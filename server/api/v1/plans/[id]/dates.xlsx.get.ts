import { readsPlan } from '../../../../auth/may'
import { planAddress, sendFile, workbookType } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { planDates, datesAsWorkbook } from '../../../../exchange/dates-out'

export default route({
  params: planAddress,
  reply: null,
  may: readsPlan,
  run: async ({ event, db, params }) =>
    sendFile(
      event,
      'northtide-plan-dates.xlsx',
      workbookType,
      await datesAsWorkbook(await planDates(db, params.id)),
    ),
})
