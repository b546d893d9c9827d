import { defineEventHandler, setHeader, setResponseStatus } from 'h3'
import { methodsOf } from '../http/methods'
import { refuse } from '../errors/refusal'

/** Pages are read; the API says itself what may be done at each of its addresses (`Allow`). HEAD is GET without what it sends. */
export default defineEventHandler(event => {
  const [path = ''] = event.path.split('?')
  const isApi = /^\/api(\/|$)/.test(path)
  const allowed = isApi ? methodsOf(path) : ['GET', 'HEAD']
  const { method } = event
  if (allowed.includes(method)) {
    if (method === 'HEAD' && isApi) {
      event.context.isHead = true
      event.node.req.method = 'GET'
      event._method = 'GET'
    }
    return undefined
  }
  const known = allowed.length > 0
  if (known) setHeader(event, 'allow', [...allowed, 'OPTIONS'].join(', '))
  if (known && method === 'OPTIONS') {
    setResponseStatus(event, 204)
    return ''
  }
  const { told } = known
    ? refuse('no-such-method', { method, allowed })
    : refuse('no-such-address', { address: path })
  setResponseStatus(event, told.status)
  setHeader(event, 'content-type', 'application/problem+json')
  return JSON.stringify({ type: 'about:blank', ...told })
})
