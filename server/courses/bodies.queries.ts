import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import type { Body } from '../../core/course/model'
import { now, stampOf } from '../clock'
import { inBatches } from '../db/rows'

const partSize = 1024 * 1024
export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

/** Stores bodies that are not there yet, each once under its SHA-256, in parts of 1 MiB. */
export async function storeBodies(db: Knex, bodies: Iterable<Uint8Array>): Promise<void> {
  const wanted = new Map<string, Uint8Array>()
  for (const bytes of bodies) wanted.set(hashOf(bytes), bytes)
  const there = new Set<string>()
  for (const batch of inBatches([...wanted.keys()])) {
    const rows = await db('bodies').whereIn('hash', batch).select('hash')
    for (const row of rows) there.add(row.hash)
  }
  const missing = [...wanted].filter(([hash]) => !there.has(hash))
  const created = stampOf(now())
  for (const batch of inBatches(missing)) {
    const rows = batch.map(([hash, bytes]) => ({ hash, size: bytes.length, created_at: created }))
    await db('bodies').insert(rows).onConflict('hash').ignore()
  }
  let waiting: { hash: string; part: number; bytes: Buffer }[] = []
  let size = 0
  const send = async () => {
    if (waiting.length > 0) await db('body_parts').insert(waiting).onConflict(['hash', 'part']).ignore()
    waiting = []
    size = 0
  }
  for (const [hash, bytes] of missing) {
    for (let part = 0; part === 0 || part * partSize < bytes.length; part++) {
      const piece = Buffer.from(bytes.subarray(part * partSize, (part + 1) * partSize))
      waiting.push({ hash, part, bytes: piece })
      if ((size += piece.length) > 4 * partSize || waiting.length >= 500) await send()
    }
  }
  await send()
}

/** Bytes that are held at once. */
const heldAtOnce = 8 * partSize

/**
 * Stores bodies that are read from where they lie, and gives back their hashes by key. Small ones go together; one that is
 * larger than what may be held is read twice: for its hash, then part by part.
 */
export async function storeStreams(
  db: Knex,
  bodies: ReadonlyMap<string, Body>,
): Promise<Map<string, string>> {
  const hashes = new Map<string, string>()
  let waiting: Uint8Array[] = []
  let held = 0
  const send = async () => {
    await storeBodies(db, waiting)
    waiting = []
    held = 0
  }
  for (const [key, body] of bodies) {
    const hash = createHash('sha256')
    const parts: Uint8Array[] = []
    let size = 0
    for await (const chunk of body.chunks()) {
      hash.update(chunk)
      if ((size += chunk.length) <= heldAtOnce) parts.push(chunk)
      else parts.length = 0
    }
    const digest = hash.digest('hex')
    hashes.set(key, digest)
    if (size > heldAtOnce) await storeLarge(db, digest, size, body)
    else {
      waiting.push(Buffer.concat(parts))
      if ((held += size) > heldAtOnce / 2) await send()
    }
  }
  await send()
  return hashes
}

async function storeLarge(db: Knex, hash: string, size: number, body: Body): Promise<void> {
  if (await db('bodies').where({ hash }).first('hash')) return
  await db('bodies')
    .insert({ hash, size, created_at: stampOf(now()) })
    .onConflict('hash')
    .ignore()
  let part = 0
  for await (const bytes of inParts(body.chunks()))
    await db('body_parts').insert({ hash, part: part++, bytes }).onConflict(['hash', 'part']).ignore()
}

/** The same bytes in parts of 1 MiB. */
export async function* inParts(chunks: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  let waiting: Uint8Array[] = []
  let size = 0
  for await (const chunk of chunks) {
    waiting.push(chunk)
    size += chunk.length
    if (size < partSize) continue
    const whole = Buffer.concat(waiting)
    let at = 0
    for (; at + partSize <= whole.length; at += partSize) yield whole.subarray(at, at + partSize)
    waiting = [whole.subarray(at)]
    size = whole.length - at
  }
  if (size > 0) yield Buffer.concat(waiting)
}

/** The bytes of a body from the first to the last, both among them, part by part. */
export async function* bodyBytes(
  db: Knex,
  hash: string,
  first: number,
  last: number,
): AsyncGenerator<Buffer> {
  for (let part = Math.floor(first / partSize); part * partSize <= last; part++) {
    const row = await db('body_parts').where({ hash, part }).first('bytes')
    if (!row) return
    const start = part * partSize
    yield row.bytes.subarray(Math.max(0, first - start), Math.min(partSize, last - start + 1))
  }
}

/** A body whole, or null. */
export async function loadBody(db: Knex, hash: string): Promise<Buffer | null> {
  const rows = await db('body_parts').where({ hash }).orderBy('part').select('bytes')
  return rows.length === 0 ? null : Buffer.concat(rows.map(row => row.bytes))
}
