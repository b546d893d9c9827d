import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'
import pLimit from 'p-limit'
import { refuse } from '../errors/refusal'

// OWASP's password storage cheat sheet: scrypt with N = 2^17, r = 8, p = 1.
const cost = { N: 2 ** 17, r: 8, p: 1 }
const length = 32
/**
 * A derivation takes one of Node's four threads, and 128 MiB, for a third of a second. Two at a time leave threads for all else (files,
 * addresses), and a short queue is all that one may be asked to wait in.
 */
const derivations = pLimit(2)
const queueAtMost = 8
function derive(password: string, salt: Buffer, size: number, options: ScryptOptions): Promise<Buffer> {
  if (derivations.pendingCount >= queueAtMost) throw refuse('sign-in-busy')
  return derivations(() => deriveNow(password, salt, size, options))
}
const deriveNow = (password: string, salt: Buffer, size: number, options: ScryptOptions): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(password.normalize('NFKC'), salt, size, { ...options, maxmem: 256 * 1024 * 1024 }, (error, key) =>
      error ? reject(error) : resolve(key),
    ),
  )

/** A password as it is kept: `scrypt$N$r$p$salt$key`, base64url. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  const key = await derive(password, salt, length, cost)
  return ['scrypt', cost.N, cost.r, cost.p, salt.toString('base64url'), key.toString('base64url')].join('$')
}

/** Whether a password is the one kept. Takes as long for a person who does not exist (`kept` null). @throws Refusal where too many ask at once */
export async function verifyPassword(password: string, kept: string | null): Promise<boolean> {
  const [, n, r, p, salt = '', key = ''] = (
    kept ?? `scrypt$${cost.N}$${cost.r}$${cost.p}$${'A'.repeat(22)}$`
  ).split('$')
  const expected = Buffer.from(key, 'base64url')
  const derived = await derive(password, Buffer.from(salt, 'base64url'), length, {
    N: Number(n),
    r: Number(r),
    p: Number(p),
  })
  return expected.length === length && timingSafeEqual(derived, expected)
}
