import document from '../../../docs/openapi.json'
import { signedIn } from '../../auth/may'
import { route } from '../../http/route'

export default route({
  summary: 'This document',
  reply: null,
  sends: 'application/json',
  may: signedIn,
  run: () => Promise.resolve(document),
})
