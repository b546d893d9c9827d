import { randomBytes } from 'node:crypto'
import { getCookie, setHeader, setHeaders, type H3Event } from 'h3'
import { headersOfAll, policyOfApi } from '../http/headers'
import { cookieName } from '../http/session'

/** The parts of a page while it is put together (Nitro's `render:html`). */
interface Page {
  head: string[]
  bodyPrepend: string[]
  body: string[]
  bodyAppend: string[]
}
/** The answer that a page is, before it is sent (Nitro's `render:response`). */
interface Answer {
  headers?: Record<string, string>
}
interface Renderer {
  hooks: {
    hook: ((name: 'render:html', change: (page: Page, context: { event: H3Event }) => void) => void) &
      ((name: 'render:response', change: (answer: Answer) => void) => void) &
      ((name: 'request', look: (event: H3Event) => void) => void)
  }
}

/** Headers of every answer; and of every page: scripts only from here and only with this page's nonce, nothing from outside, no framing. */
export default (nitro: Renderer): void => {
  const ofAll = headersOfAll()
  nitro.hooks.hook('request', event => {
    setHeaders(event, ofAll)
    if (event.path.startsWith('/api/')) setHeader(event, 'content-security-policy', policyOfApi)
  })
  nitro.hooks.hook('render:response', answer => {
    delete answer.headers?.['x-powered-by']
  })
  nitro.hooks.hook('render:html', (html, { event }) => {
    // What the first page shows is asked for while its scripts are still on their way.
    if (event.path.split('?')[0] === '/' && getCookie(event, cookieName()))
      html.head.push('<link rel="preload" href="/api/v1/shells" as="fetch" crossorigin="anonymous">')
    const nonce = randomBytes(16).toString('base64')
    const sign = (chunk: string): string => chunk.replace(/<script(?=[\s>])/g, `<script nonce="${nonce}"`)
    html.head = html.head.map(sign)
    html.bodyPrepend = html.bodyPrepend.map(sign)
    html.body = html.body.map(sign)
    html.bodyAppend = html.bodyAppend.map(sign)
    setHeader(
      event,
      'content-security-policy',
      [
        `default-src 'none'`,
        `script-src 'self' 'nonce-${nonce}'`,
        `style-src 'self' 'unsafe-inline'`,
        `img-src 'self' data:`,
        `font-src 'self'`,
        `connect-src 'self'`,
        `worker-src 'self'`,
        `media-src 'self'`,
        `form-action 'self'`,
        `base-uri 'none'`,
        `frame-ancestors 'none'`,
      ].join('; '),
    )
  })
}
