import { setHeader } from 'h3'
import { readsCourse } from '../../../../../../courses/access'
import { readItemFile } from '../../../../../../courses/reading'
import { itemAddress } from '../../../../../../http/addresses'
import { route } from '../../../../../../http/route'

/** The bytes of a file. Nothing in it may run or load anything, whatever it is. */
export default route({
  summary: 'The bytes of a file of a course',
  params: itemAddress,
  reply: null,
  sends: 'application/octet-stream',
  may: readsCourse,
  run: async ({ event, db, person, params }) => {
    const file = await readItemFile(db, person, params.id, params.lineage)
    setHeader(event, 'content-type', file.mediaType)
    setHeader(event, 'x-content-type-options', 'nosniff')
    setHeader(event, 'content-security-policy', `default-src 'none'; style-src 'unsafe-inline'; sandbox`)
    setHeader(
      event,
      'content-disposition',
      `${file.inline ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    )
    return file.bytes
  },
})
