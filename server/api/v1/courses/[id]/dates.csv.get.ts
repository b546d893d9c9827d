import { worksWithCourse } from '../../../../courses/access'
import { loadCourse } from '../../../../courses/courses.queries'
import { courseFileName } from '../../../../courses/item'
import { courseDateTable, tableAsCsv } from '../../../../exchange/dates-out'
import { courseAddress, replyWithFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'The dates of a course as CSV',
  params: courseAddress,
  reply: null,
  sends: 'text/csv',
  may: worksWithCourse,
  run: async ({ event, db, params }) =>
    replyWithFile(
      event,
      `${courseFileName(await loadCourse(db, params.id))}-dates.csv`,
      'text/csv',
      tableAsCsv(await courseDateTable(db, params.id)),
    ),
})
