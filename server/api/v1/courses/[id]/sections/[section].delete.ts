import { editsCourse } from '../../../../../courses/access'
import { sectionAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { readSections, unlinkSection } from '../../../../../sections/linking'
import { sectionsReply } from '../../../../../../shared/api/sections'

export default route({
  summary: 'Give a section a content of its own',
  params: sectionAddress,
  reply: sectionsReply,
  may: editsCourse,
  run: async ({ db, person, params: { id, section } }) => {
    await unlinkSection(db, person, { contentId: id, sectionId: section })
    return readSections(db, person, id)
  },
})
