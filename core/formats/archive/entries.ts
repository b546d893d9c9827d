import { FormatRefusal, type Unreadable } from '../findings'
import { sizeText, type ReadLimits } from '../limits'
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

function faultOf(entry: DirectoryEntry, limits: ReadLimits): string | null {
  const { path } = entry
  const shown = JSON.stringify(path.length > 120 ? `${path.slice(0, 120)}…` : path)
  if (path.includes('\0')) return `an entry has a zero byte in its name: ${shown}`
  if (path === '' || path.length > 1000)
    return `an entry has ${path === '' ? 'no name' : 'a name of over 1000 characters'}`
  if (/^[/\\]|^[a-z]:/i.test(path)) return `an entry has an absolute path: ${shown}`
  if (path.split(/[/\\]/).includes('..')) return `an entry leads outside the archive: ${shown}`
  if (entry.encrypted) return `the entry ${shown} is encrypted; pack it again without a password`
  if (typeOf(entry.mode) !== 0 && typeOf(entry.mode) !== regular && typeOf(entry.mode) !== directory)
    return `the entry ${shown} is a ${typeOf(entry.mode) === 0o120000 ? 'symbolic link' : 'device or pipe'}, not a file`
  if (entry.method !== 0 && entry.method !== 8)
    return `the entry ${shown} is packed by a method (${entry.method}) that is not read; pack it again as an ordinary zip`
  if (entry.method === 0 && entry.size !== entry.packedSize)
    return `the entry ${shown} gives two sizes for the same bytes`
  // Deflate cannot do better than about 1032 to 1 (RFC 1951); what says so lies, what comes near it is a bomb.
  if (entry.size > 1024 * 1024 && entry.size > entry.packedSize * limits.ratio)
    return `the entry ${shown} unpacks to over ${limits.ratio} times its size`
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
  const refuse = (reason: string, why: Unreadable = 'hostile'): never => {
    throw new FormatRefusal(name, reason, why)
  }
  if (found.length > limits.entries) refuse(`holds more than ${limits.entries} files`, 'limit')
  const files = new Set<string>()
  const folders = new Set<string>()
  let size = 0
  let packed = 0
  for (const entry of found) {
    const fault = faultOf(entry, limits)
    if (fault) refuse(fault)
    const path = entry.path.replaceAll('\\', '/')
    const isFolder = path.endsWith('/')
    if (files.has(path) || (isFolder && files.has(path.slice(0, -1))))
      refuse(`two entries have the name ${JSON.stringify(path)}`)
    if (!isFolder) files.add(path)
    for (let at = path.indexOf('/'); at >= 0; at = path.indexOf('/', at + 1)) folders.add(path.slice(0, at))
    size += entry.size
    packed += entry.packedSize
    if (size > limits.unpackedBytes) refuse(`unpacks to more than ${sizeText(limits.unpackedBytes)}`, 'limit')
  }
  for (const path of files)
    if (folders.has(path)) refuse(`the name ${JSON.stringify(path)} is a file and a folder`)
  if (size > 16 * 1024 * 1024 && size > packed * limits.ratio)
    refuse(`unpacks to over ${limits.ratio} times its size`)
  const inOrder = [...found].sort((a, b) => a.offset - b.offset)
  for (let at = 1; at < inOrder.length; at++) {
    const before = inOrder[at - 1]!
    if (before.offset + before.headerLength + before.packedSize > inOrder[at]!.offset)
      refuse(
        `the entries ${JSON.stringify(before.path)} and ${JSON.stringify(inOrder[at]!.path)} lie over one another`,
      )
  }
  return inOrder
    .map(entry => ({ path: entry.path.replaceAll('\\', '/'), size: entry.size }))
    .filter(entry => !entry.path.endsWith('/'))
}
