import { editsCourse } from '../../../../../courses/access'
import { sectionAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { linkSection, readSections } from '../../../../../sections/linking'
import { linkRequest, sectionsReply } from '../../../../../../shared/api/sections'

/** What the section held goes: the body names exactly that. */
export default route({
  summary: 'Have a section show a course’s content',
  params: sectionAddress,
  body: linkRequest,
  reply: sectionsReply,
  may: editsCourse,
  run: async ({ db, person, params: { id, section }, body: { agreed } }) => {
    await linkSection(db, person, { contentId: id, sectionId: section, agreed })
    return readSections(db, person, id)
  },
})
