import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { now, stampOf } from '../../services/today'
import { inBatches } from '../rows'

const partSize = 1024 * 1024
export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

/** Stores bodies that are not there yet, each once under its SHA-256, in parts of 1 MiB. */
export async function storeBodies(db: Knex, bodies: Iterable<Uint8Array>): Promise<void> {
  const wanted = new Map<string, Uint8Array>()
  for (const bytes of bodies) wanted.set(hashOf(bytes), bytes)
  const hashes = [...wanted.keys()]
  const there = new Set<string>()
  for (const batch of inBatches(hashes)) for (const row of await db('bodies').whereIn('hash', batch).select('hash')) there.add(row.hash)
  const missing = hashes.filter(hash => !there.has(hash))
  for (const batch of inBatches(missing)) await db('bodies').insert(batch.map(hash => ({ hash, size: wanted.get(hash)!.length, created_at: stampOf(now()) }))).onConflict('hash').ignore()
  let waiting: { hash: string, part: number, bytes: Buffer }[] = []
  let size = 0
  const send = async () => {
    if (waiting.length > 0) await db('body_parts').insert(waiting).onConflict(['hash', 'part']).ignore()
    waiting = []
    size = 0
  }
  for (const hash of missing) {
    const bytes = wanted.get(hash)!
    for (let part = 0; part === 0 || part * partSize < bytes.length; part++) {
      const piece = Buffer.from(bytes.subarray(part * partSize, (part + 1) * partSize))
      waiting.push({ hash, part, bytes: piece })
      if ((size += piece.length) > 4 * partSize || waiting.length >= 500) await send()
    }
  }
  await send()
}

/** A body whole, or null. */
export async function loadBody(db: Knex, hash: string): Promise<Buffer | null> {
  const rows = await db('body_parts').where({ hash }).orderBy('part').select('bytes') as { bytes: Buffer }[]
  return rows.length === 0 ? null : Buffer.concat(rows.map(row => row.bytes))
}
