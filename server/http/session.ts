import { deleteCookie, getCookie, setCookie, type H3Event } from 'h3'
import type { Knex } from 'knex'
import { knownDays } from '../auth/known-browsers.queries'
import { seeSession, sessionHours } from '../auth/sessions.queries'

const isSecure = (): boolean => process.env.NORTHTIDE_SECURE_COOKIES === 'true'
/** With https its name says that it is of this host alone (RFC 6265bis, section 4.1.3.2). */
export const cookieName = (): string => (isSecure() ? '__Host-northtide' : 'northtide')
const options = () => ({ httpOnly: true, sameSite: 'lax', path: '/', secure: isSecure() }) as const

/** The sign-in whose cookie came with the request, where it stands. */
export async function sessionOf(event: H3Event, db: Knex): Promise<{ id: string; personId: string } | null> {
  const secret = getCookie(event, cookieName())
  return secret ? seeSession(db, secret) : null
}
export const giveCookie = (event: H3Event, secret: string): void =>
  setCookie(event, cookieName(), secret, { ...options(), maxAge: sessionHours * 3600 })
const knownName = (): string => (isSecure() ? '__Host-northtide-known' : 'northtide-known')
/** The secret by which this browser is known, where it has one. */
export const knownBrowser = (event: H3Event): string | null => getCookie(event, knownName()) ?? null
export const giveKnownCookie = (event: H3Event, secret: string): void =>
  setCookie(event, knownName(), secret, { ...options(), maxAge: knownDays * 24 * 3600 })
export const takeCookie = (event: H3Event): void => deleteCookie(event, cookieName(), options())
