import { signedIn } from '../../../auth/may'
import { clientAddress } from '../../../http/client'
import { route } from '../../../http/route'
import { enterCode } from '../../../sharing/shares'
import { codeEntered, codeOpened } from '../../../../shared/api/shares'

/** Opens a colleague's course by the code they gave. */
export default route({
  summary: 'Open a colleague’s course by its share code',
  body: codeEntered,
  reply: codeOpened,
  may: signedIn,
  run: ({ event, db, person, body }) => enterCode(db, person, body.code, clientAddress(event)),
})
