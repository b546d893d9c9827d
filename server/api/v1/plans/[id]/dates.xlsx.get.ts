import { planDateTable, tableAsWorkbook } from '../../../../exchange/dates-out'
import { planAddress, replyWithFile, workbookType } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'

export default route({
  summary: 'Old and new dates of a plan as a workbook',
  params: planAddress,
  reply: null,
  sends: workbookType,
  may: readsPlan,
  run: async ({ event, db, params }) =>
    replyWithFile(
      event,
      'northtide-plan-dates.xlsx',
      workbookType,
      await tableAsWorkbook(await planDateTable(db, params.id)),
    ),
})
