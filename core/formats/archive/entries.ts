import type { ReadLimits } from '../limits'
import { FormatRefusal } from '../refusal'
import type { ArchiveEntry } from './archive'

/** An entry as the central directory of a zip archive describes it (PKWARE APPNOTE 6.3, §4.3.12; field names from memory). */
export interface DirectoryEntry {
  readonly path: string
  readonly size: number
  readonly packedSize: number
  readonly encrypted: boolean
  /** 0 stored, 8 deflated. */
  readonly method: number
  /** File type and permission bits, where the archive was made on a system that has them, else 0. */
  readonly mode: number
  /** Where its local header starts, and how long header and name are at least. */
  readonly offset: number
  readonly headerLength: number
}

const typeOf = (mode: number): number => mode & 0o170000
const directory = 0o040000
const regular = 0o100000
const symbolicLink = 0o120000

const nameLength = 1000

/** Why an entry is one that nobody should unpack, or null. */
function faultOf(name: string, entry: DirectoryEntry, limits: ReadLimits): FormatRefusal | null {
  const { path } = entry
  const type = typeOf(entry.mode)
  if (path.includes('\0')) return new FormatRefusal('entry-zero-byte', name, { path })
  if (path === '') return new FormatRefusal('entry-unnamed', name)
  if (path.length > nameLength) return new FormatRefusal('entry-name-long', name, { most: nameLength })
  if (/^[/\\]|^[a-z]:/i.test(path)) return new FormatRefusal('entry-absolute', name, { path })
  if (path.split(/[/\\]/).includes('..')) return new FormatRefusal('entry-outside', name, { path })
  if (entry.encrypted) return new FormatRefusal('entry-encrypted', name, { path })
  if (type !== 0 && type !== regular && type !== directory)
    return new FormatRefusal('entry-no-file', name, { path, isLink: type === symbolicLink })
  if (entry.method !== 0 && entry.method !== 8)
    return new FormatRefusal('entry-packed-otherwise', name, { path, method: entry.method })
  if (entry.method === 0 && entry.size !== entry.packedSize)
    return new FormatRefusal('entry-two-sizes', name, { path })
  // Deflate cannot do better than about 1032 to 1 (RFC 1951); what says so lies, what comes near it is a bomb.
  if (entry.size > 1024 * 1024 && entry.size > entry.packedSize * limits.ratio)
    return new FormatRefusal('entry-unpacks-too-often', name, { path, ratio: limits.ratio })
  return null
}

/**
 * Checks every entry of a zip archive before any is unpacked, and gives back the files in the order in which they lie.
 * @throws FormatRefusal for an archive that nobody should unpack: what leads out of it, links, is encrypted, stands twice, lies
 *   over another entry, or is over the limits.
 */
export function admitEntries(
  name: string,
  found: readonly DirectoryEntry[],
  limits: ReadLimits,
): ArchiveEntry[] {
  if (found.length > limits.entries) throw new FormatRefusal('too-many-files', name, { most: limits.entries })
  const files = new Set<string>()
  const folders = new Set<string>()
  let size = 0
  let packed = 0
  for (const entry of found) {
    const fault = faultOf(name, entry, limits)
    if (fault) throw fault
    const path = entry.path.replaceAll('\\', '/')
    const isFolder = path.endsWith('/')
    if (files.has(path) || (isFolder && files.has(path.slice(0, -1))))
      throw new FormatRefusal('entries-of-one-name', name, { path })
    if (!isFolder) files.add(path)
    for (let at = path.indexOf('/'); at >= 0; at = path.indexOf('/', at + 1)) folders.add(path.slice(0, at))
    size += entry.size
    packed += entry.packedSize
    if (size > limits.unpackedBytes)
      throw new FormatRefusal('unpacks-too-large', name, { bytes: limits.unpackedBytes })
  }
  for (const path of files) if (folders.has(path)) throw new FormatRefusal('file-and-folder', name, { path })
  if (size > 16 * 1024 * 1024 && size > packed * limits.ratio)
    throw new FormatRefusal('unpacks-too-often', name, { ratio: limits.ratio })
  const inOrder = [...found].sort((a, b) => a.offset - b.offset)
  for (let at = 1; at < inOrder.length; at++) {
    const [before, after] = [inOrder[at - 1]!, inOrder[at]!]
    if (before.offset + before.headerLength + before.packedSize > after.offset)
      throw new FormatRefusal('entries-overlap', name, { paths: [before.path, after.path] })
  }
  return inOrder
    .map(entry => ({ path: entry.path.replaceAll('\\', '/'), size: entry.size }))
    .filter(entry => !entry.path.endsWith('/'))
}
