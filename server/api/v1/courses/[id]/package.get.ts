import { bodyBytes } from '../../../../courses/bodies.queries'
import { worksWithCourse } from '../../../../courses/access'
import { coursePackage } from '../../../../exchange/uploads'
import { courseAddress } from '../../../../http/addresses'
import { sendBytes } from '../../../../http/bytes'
import { route } from '../../../../http/route'

/** The package a course was read from, as it came. */
export default route({
  summary: 'The package a course was read from, as it came',
  params: courseAddress,
  reply: null,
  sends: 'application/octet-stream',
  may: worksWithCourse,
  run: async ({ event, db, params }) => {
    const { name, size, hash } = await coursePackage(db, params.id)
    return sendBytes(event, {
      hash,
      size,
      name,
      mediaType: 'application/octet-stream',
      inline: false,
      read: (first, last) => bodyBytes(db, hash, first, last),
    })
  },
})
