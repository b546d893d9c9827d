import { createHmac } from 'node:crypto'
import { phoneEnds } from '../../core/student-data/traces/people'
import type { KeyOf } from '../../core/student-data/traces/scan'

/**
 * What makes the keyed hash (HMAC, RFC 2104, with SHA-256) of the end of a phone number; null where no key is set: then none are kept and none
 * are found. The key is no part of the database, since ten digits are soon tried.
 */
export function phoneKeyOf(): KeyOf | null {
  const key = process.env.NORTHTIDE_PHONE_KEY ?? ''
  return key === ''
    ? null
    : digits => createHmac('sha256', key).update(digits).digest('base64url').slice(0, 16)
}
/** What is kept of somebody's phone numbers. */
export function phoneKeysOf(numbers: readonly (string | undefined)[]): string | null {
  const keyOf = phoneKeyOf()
  if (!keyOf) return null
  const keys = new Set(numbers.flatMap(number => phoneEnds(number ?? '')).map(keyOf))
  return keys.size === 0 ? null : [...keys].sort().join(' ')
}
