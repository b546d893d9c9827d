import { z } from 'zod'
import { shellsWanted } from '../../../../shared/api/shells'
import { signedIn } from '../../../auth/may'
import { route } from '../../../http/route'
import { storageFor } from '../../../services/shells'

/** What rolling from some courses would take in storage. */
export default route({ query: shellsWanted, reply: z.object({ bodies: z.int(), own: z.int(), rows: z.int(), rowBytes: z.number() }), may: signedIn, run: ({ db, person, query }) => storageFor(db, person, query.ids) })
