import { getHeader, getRequestHost, getRequestProtocol, readRawBody, type H3Event } from 'h3'
import { refuse } from '../errors/refusal'

const bodyLimit = 4 * 1024 * 1024

/** The JSON that came with a request; undefined where nothing did. @throws Refusal */
export async function readJson(event: H3Event): Promise<unknown> {
  if (Number(getHeader(event, 'content-length') ?? 0) > bodyLimit)
    throw refuse('request-too-large', { limit: bodyLimit })
  const text = await readRawBody(event)
  if (!text) return undefined
  if (text.length > bodyLimit) throw refuse('request-too-large', { limit: bodyLimit })
  try {
    return JSON.parse(text)
  } catch {
    throw refuse('not-json')
  }
}

/** A browser says where a request comes from; one that would change something must come from here. @throws Refusal */
export function checkOrigin(event: H3Event): void {
  if (['GET', 'HEAD', 'OPTIONS'].includes(event.method)) return
  const origin = getHeader(event, 'origin')
  const own = process.env.NORTHTIDE_ORIGIN ?? `${getRequestProtocol(event)}://${getRequestHost(event)}`
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
