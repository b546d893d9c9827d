import { worksWithCourse } from '../../../../../courses/access'
import { courseAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { readSections } from '../../../../../sections/linking'
import { sectionsReply } from '../../../../../../shared/api/sections'

export default route({
  summary: 'Sections that show a course’s content, and those that could',
  params: courseAddress,
  reply: sectionsReply,
  may: worksWithCourse,
  run: ({ db, person, params }) => readSections(db, person, params.id),
})
