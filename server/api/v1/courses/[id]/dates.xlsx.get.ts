import { worksWithCourse } from '../../../../courses/access'
import { loadCourse } from '../../../../courses/courses.queries'
import { courseFileName } from '../../../../courses/item'
import { courseDateTable, tableAsWorkbook } from '../../../../exchange/dates-out'
import { courseAddress, replyWithFile, workbookType } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'The dates of a course as a workbook',
  params: courseAddress,
  reply: null,
  sends: workbookType,
  may: worksWithCourse,
  run: async ({ event, db, params }) =>
    replyWithFile(
      event,
      `${courseFileName(await loadCourse(db, params.id))}-dates.xlsx`,
      workbookType,
      await tableAsWorkbook(await courseDateTable(db, params.id)),
    ),
})
