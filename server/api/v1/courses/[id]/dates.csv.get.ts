import { worksWithCourse } from '../../../../auth/may'
import { courseAddress, sendFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { courseDates, datesAsCsv } from '../../../../exchange/dates-out'
import { findCourse } from '../../../../courses/reading'

export default route({
  params: courseAddress,
  reply: null,
  may: worksWithCourse,
  run: async ({ event, db, params }) =>
    sendFile(
      event,
      `${(await findCourse(db, params.id)).fileName}-dates.csv`,
      'text/csv',
      datesAsCsv(await courseDates(db, params.id)),
    ),
})
