import { worksWithCourse } from '../../../../auth/may'
import { courseAddress, sendFile, workbookType } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { courseDates, datesAsWorkbook } from '../../../../exchange/dates-out'
import { findCourse } from '../../../../courses/reading'

export default route({
  params: courseAddress,
  reply: null,
  may: worksWithCourse,
  run: async ({ event, db, params }) =>
    sendFile(
      event,
      `${(await findCourse(db, params.id)).fileName}-dates.xlsx`,
      workbookType,
      await datesAsWorkbook(await courseDates(db, params.id)),
    ),
})
