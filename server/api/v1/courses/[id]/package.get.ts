import { Readable } from 'node:stream'
import { setHeader } from 'h3'
import { worksWithCourse } from '../../../../courses/access'
import { coursePackage } from '../../../../exchange/uploads'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'

/** The package a course was read from, as it came. */
export default route({
  summary: 'The package a course was read from, as it came',
  params: courseAddress,
  reply: null,
  sends: 'application/octet-stream',
  may: worksWithCourse,
  run: async ({ event, db, params }) => {
    const { name, size, bytes } = await coursePackage(db, params.id)
    setHeader(event, 'content-type', 'application/octet-stream')
    setHeader(event, 'x-content-type-options', 'nosniff')
    setHeader(event, 'content-disposition', `attachment; filename*=UTF-8''${encodeURIComponent(name)}`)
    setHeader(event, 'content-length', size)
    return Readable.from(bytes)
  },
})
