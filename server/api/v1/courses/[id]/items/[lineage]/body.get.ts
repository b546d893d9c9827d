import { setHeader } from 'h3'
import { readsCourse } from '../../../../../../auth/may'
import { itemAddress } from '../../../../../../http/addresses'
import { route } from '../../../../../../http/route'
import { readFile } from '../../../../../../courses/reading'

/** The bytes of a file. Nothing in it may run or load anything, whatever it is. */
export default route({
  params: itemAddress,
  reply: null,
  may: readsCourse,
  run: async ({ event, db, person, params }) => {
    const file = await readFile(db, person, params.id, params.lineage)
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
