import { unzipSync, type UnzipFileInfo } from 'fflate'
import { FormatRefusal } from './findings'

/** What an archive may hold at most. */
export interface ArchiveLimits { entries: number, bytes: number }
export const archiveLimits: ArchiveLimits = { entries: 20_000, bytes: 512 * 1024 * 1024 }

/** Unpacks a zip archive into its files by path. Refuses what is no zip, leads outside the archive, or is over the limits. */
export function unpack(name: string, bytes: Uint8Array, limits: ArchiveLimits = archiveLimits): Map<string, Uint8Array> {
  if (!(bytes[0] === 0x50 && bytes[1] === 0x4b)) throw new FormatRefusal(name, 'is not a zip archive')
  const files = new Map<string, Uint8Array>()
  let entries = 0
  let size = 0
  const admit = (file: UnzipFileInfo): boolean => {
    if (++entries > limits.entries) throw new FormatRefusal(name, `holds more than ${limits.entries} files`)
    if ((size += file.originalSize) > limits.bytes) throw new FormatRefusal(name, `unpacks to more than ${Math.round(limits.bytes / 1048576)} MiB`)
    if (/^[/\\]|^[a-z]:|(^|[/\\])\.\.([/\\]|$)|\0/i.test(file.name)) throw new FormatRefusal(name, `an entry leads outside the archive: ${JSON.stringify(file.name)}`)
    return !file.name.endsWith('/')
  }
  try {
    for (const [path, content] of Object.entries(unzipSync(bytes, { filter: admit }))) files.set(path, content)
  }
  catch (error) {
    if (error instanceof FormatRefusal) throw error
    throw new FormatRefusal(name, `the zip archive is damaged (${(error as Error).message})`)
  }
  return files
}

/** Text of a file in UTF-8, a byte order mark taken off; refuses bytes that are not UTF-8. */
export function utf8(name: string, bytes: Uint8Array): string {
  try { return new TextDecoder('utf-8', { fatal: true }).decode(bytes) }
  catch { throw new FormatRefusal(name, 'is not UTF-8 text') }
}
