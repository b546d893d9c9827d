import { createHash, randomBytes } from 'node:crypto'

/** A secret that nobody can guess (256 bits), as text for a cookie or a link. */
export const newSecret = (): string => randomBytes(32).toString('base64url')
/** How a secret is kept: its SHA-256. It has too many bits to be found by trying, so that no salt and no slow hash is needed. */
export const hashOfSecret = (secret: string): string => createHash('sha256').update(secret).digest('hex')
