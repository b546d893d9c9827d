import type { IncomingMessage } from 'node:http'
import { getHeader, getRequestHost, getRequestProtocol, type H3Event } from 'h3'
import { unkeptText } from '../../core/text'
import { refuse } from '../errors/refusal'

const bodyLimit = 4 * 1024 * 1024

/**
 * The bytes of a request as they arrive. Whoever stops reading may still answer: the connection stays open until they have (and is
 * closed then, see `route.ts`).
 */
export const chunksOf = (request: Pick<IncomingMessage, 'iterator'>): AsyncIterable<Buffer> =>
  request.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>
/** What came with a request, counted while it is read: no more than may be is ever held. @throws Refusal */
export async function readBytes(event: H3Event, limit: number): Promise<Buffer> {
  const parts: Buffer[] = []
  let size = 0
  for await (const chunk of chunksOf(event.node.req)) {
    size += chunk.length
    if (size > limit) throw refuse('request-too-large', { limit })
    parts.push(chunk)
  }
  return Buffer.concat(parts)
}
function parseJson(bytes: Buffer): unknown {
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  } catch {
    throw refuse('not-json')
  }
}
/** The JSON that came with a request; undefined where nothing did. @throws Refusal */
export async function readJson(event: H3Event): Promise<unknown> {
  if (Number(getHeader(event, 'content-length') ?? 0) > bodyLimit)
    throw refuse('request-too-large', { limit: bodyLimit })
  const bytes = await readBytes(event, bodyLimit)
  if (bytes.length === 0) return undefined
  const value = parseJson(bytes)
  const fault = unkeptText(value)
  if (fault) {
    const errors = [{ field: fault.path.join('.') || 'request', message: `It ${fault.message}` }]
    throw refuse('bad-request', { what: 'request', errors })
  }
  return value
}

/** Where this application stands, as browsers see it: NORTHTIDE_ORIGIN, else as it was asked for. */
export const ownOrigin = (event: H3Event): string =>
  process.env.NORTHTIDE_ORIGIN ?? `${getRequestProtocol(event)}://${getRequestHost(event)}`
/** A browser says where a request comes from; one that would change something must come from here. @throws Refusal */
export function checkOrigin(event: H3Event): void {
  if (['GET', 'HEAD', 'OPTIONS'].includes(event.method)) return
  const origin = getHeader(event, 'origin')
  const own = ownOrigin(event)
  const site = getHeader(event, 'sec-fetch-site')
  const isOwn = origin ? origin === own : !site || site === 'same-origin' || site === 'none'
  if (!isOwn) throw refuse('other-site')
}

/** The revision that a change was made on, as If-Match carries it. @throws Refusal where it is missing */
export function revisionMeant(event: H3Event, what: string): number {
  const match = /^"(\d+)"$/.exec(getHeader(event, 'if-match') ?? '')
  if (!match) throw refuse('no-revision', { what })
  return Number(match[1])
}
