import type { Server } from 'node:http'
import type { H3Event } from 'h3'

interface App {
  hooks: { hook: (name: 'request', work: (event: H3Event) => void) => void }
}
/** Longer than browsers and proxies leave a connection idle. */
const idleAtMost = 75_000

/** Whoever asks on a connection that the server is about to close loses the request: so it is others who close, not the server. */
export default (app: App): void => {
  app.hooks.hook('request', event => {
    // Node tells it of every socket, its types do not.
    const { server } = event.node.req.socket as { server?: Server }
    if (server && server.keepAliveTimeout < idleAtMost) server.keepAliveTimeout = idleAtMost
  })
}
