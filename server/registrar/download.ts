import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import type { Knex } from 'knex'
import { Refusal, refuse } from '../errors/refusal'
import { uploadLimit } from '../exchange/upload-limit'
import { registrarAddress } from './address'
import { lastEtag } from './fetches.queries'

/** Counts what comes through, and stops where it is more than may come. */
function gauge(limit: number, beat: (bytes: number) => void) {
  const hash = createHash('sha256')
  let size = 0
  const stream = new Transform({
    transform(chunk: Buffer, _, done) {
      size += chunk.length
      hash.update(chunk)
      beat(size)
      done(size > limit ? refuse('registrar-too-large', { limit }) : null, chunk)
    },
  })
  return { stream, size: () => size, digest: () => hash.digest('hex') }
}

/**
 * Fetches the registrar's bundle into a file. Answers null where it is the one brought in last.
 * @throws Refusal where it cannot be had: not reached, too slow, refused, too large.
 */
export async function downloadBundle(
  db: Knex,
  path: string,
  beat: (bytes: number) => void,
  abandoned: AbortSignal,
): Promise<{ etag: string } | null> {
  const address = registrarAddress()
  if (!address) throw refuse('no-registrar')
  const before = await lastEtag(db)
  const counted = gauge(uploadLimit(), beat)
  const given = inTime(address.seconds, abandoned)
  try {
    const asked = fetch(address.url, {
      headers: {
        authorization: `Bearer ${address.token}`,
        accept: 'application/zip',
        ...(before && !before.startsWith('sha256:') && { 'if-none-match': before }),
      },
      signal: given.signal,
      redirect: 'error',
    })
    const answer = await Promise.race([asked, given.ended])
    const { status } = answer
    if (status === 304) return null
    if (status === 401 || status === 403) throw refuse('registrar-token', { status })
    if (!answer.ok || !answer.body) throw refuse('registrar-answer', { status })
    const body = Readable.fromWeb(answer.body as ReadableStream)
    await pipeline(body, counted.stream, createWriteStream(path, { mode: 0o600 }), { signal: given.signal })
    const size = counted.size()
    const stated = Number(answer.headers.get('content-length') ?? size)
    if (size !== stated) throw refuse('registrar-broke-off', { size, stated })
    const etag = answer.headers.get('etag')?.slice(0, 190) ?? `sha256:${counted.digest()}`
    return etag === before ? null : { etag }
  } catch (error) {
    throw troubleOf(error, counted.size(), address.seconds)
  } finally {
    given.over()
  }
}
/**
 * Ends a download when its time is up or it is abandoned. In Node 20 neither AbortSignal.any of a timeout nor a fetch holds on
 * to what would abort it: the garbage collector takes that, and a slow registrar is waited for until the next start. So the
 * timer is ours, and the wait and the stream listen to it themselves.
 */
function inTime(seconds: number, abandoned: AbortSignal) {
  const controller = new AbortController()
  const give = (): void => controller.abort()
  const timer = setTimeout(give, seconds * 1000)
  abandoned.addEventListener('abort', give, { once: true })
  const ended = new Promise<never>((_, reject) => {
    controller.signal.addEventListener('abort', () => reject(controller.signal.reason as Error), {
      once: true,
    })
  })
  // Where the answer came in time, nobody waits for this any more.
  ended.catch(() => {})
  return {
    signal: controller.signal,
    ended,
    over: () => {
      clearTimeout(timer)
      abandoned.removeEventListener('abort', give)
    },
  }
}
/** What went wrong while the list came, as a refusal. */
function troubleOf(error: unknown, size: number, seconds: number): Refusal {
  if (error instanceof Refusal) return error
  const name = error instanceof Error ? error.name : ''
  if (name === 'TimeoutError' || name === 'AbortError') return refuse('registrar-slow', { seconds })
  return size > 0 ? refuse('registrar-broke-off', { size, stated: null }) : refuse('registrar-unreachable')
}
