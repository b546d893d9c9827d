import { worksWithCourse } from '../../../../courses/access'
import { loadCourse } from '../../../../courses/courses.queries'
import { courseFileName } from '../../../../courses/item'
import { courseDeadlines } from '../../../../exchange/dates-out'
import { courseAddress, replyWithFile } from '../../../../http/addresses'
import { route } from '../../../../http/route'

export default route({
  summary: 'The deadlines of a course as iCalendar',
  params: courseAddress,
  reply: null,
  sends: 'text/calendar',
  may: worksWithCourse,
  run: async ({ event, db, params }) =>
    replyWithFile(
      event,
      `${courseFileName(await loadCourse(db, params.id))}-deadlines.ics`,
      'text/calendar',
      await courseDeadlines(db, params.id),
    ),
})
