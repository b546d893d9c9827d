import Bowser from 'bowser'
import { getHeader, type H3Event } from 'h3'
import ipaddr from 'ipaddr.js'
import { log } from './logger'
import { knownBrowser } from './session'

/**
 * Where a request comes from: the address of its connection; behind proxies (NORTHTIDE_PROXIES says how many) the one that the
 * outermost of them saw. Of IPv6 the network (/64), since one household or office has all of it.
 */
export function clientAddress(event: H3Event, env: Record<string, string | undefined> = process.env): string {
  const proxies = Number(env.NORTHTIDE_PROXIES || 0)
  if (proxies === 0 && getHeader(event, 'x-forwarded-for') !== undefined) sayProxyOnce()
  const seen = (getHeader(event, 'x-forwarded-for') ?? '').split(',').map(each => each.trim())
  const given = (proxies > 0 ? seen.at(-proxies) : undefined) || event.node.req.socket.remoteAddress || ''
  if (!ipaddr.isValid(given)) return 'unknown'
  const address = ipaddr.process(given)
  if (address.kind() === 'ipv4') return address.toString()
  const network = ipaddr.IPv6.networkAddressFromCIDR(`${address.toNormalizedString()}/64`)
  return `${network.toString()}/64`
}
let said = false
/** Behind a proxy that is not counted everybody has one address, and one person's wrong guesses keep all others waiting. */
function sayProxyOnce(): void {
  if (said) return
  said = true
  log.warn('requests come through a proxy, or say so: NORTHTIDE_PROXIES is to say through how many (README)')
}
/** Where a request comes from, and by which browser. */
export const clientOf = (event: H3Event): { device: string; address: string; known: string | null } => ({
  device: deviceOf(event),
  address: clientAddress(event),
  known: knownBrowser(event),
})
/** What a browser says it is, in words: `Firefox on Linux`. */
function deviceOf(event: H3Event): string {
  const agent = (getHeader(event, 'user-agent') ?? '').slice(0, 500)
  if (agent === '') return 'an unknown browser'
  const { browser, os } = Bowser.parse(agent)
  const name = browser.name || 'another program'
  return (os.name ? `${name} on ${os.name}` : name).replace(/[^\p{L}\p{N} .()-]/gu, '').slice(0, 100)
}
