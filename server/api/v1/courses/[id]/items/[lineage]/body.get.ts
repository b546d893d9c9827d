import { readsCourse } from '../../../../../../courses/access'
import { bodyBytes } from '../../../../../../courses/bodies.queries'
import { readItemFile } from '../../../../../../courses/item'
import { itemAddress } from '../../../../../../http/addresses'
import { sendBytes } from '../../../../../../http/bytes'
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
    const read = (first: number, last: number) => bodyBytes(db, file.hash, first, last)
    return sendBytes(event, { ...file, read })
  },
})
