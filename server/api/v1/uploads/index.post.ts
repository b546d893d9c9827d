import { z } from 'zod'
import { signedIn } from '../../../auth/may'
import { receiveUpload } from '../../../exchange/uploads'
import { route } from '../../../http/route'

/** The body is the file itself; its name stands in the address. */
export default route({
  summary: 'Lay a file aside to be read; the body is the file itself',
  query: z.object({ name: z.string().max(500).default('') }),
  reply: z.object({ id: z.uuid() }),
  may: signedIn,
  run: ({ event, db, person, query }) => receiveUpload(db, person, query.name, event.node.req),
})
