import { messageOf } from '../../../core/message'
import { present } from '../../../core/present'
import { closeSync, fstatSync, openSync, readSync } from 'node:fs'
import { constants, crc32, createInflateRaw, inflateRawSync } from 'node:zlib'
import yauzl from 'yauzl'
import type { Archive } from '../../../core/formats/archive/archive'
import { admitEntries, type DirectoryEntry } from '../../../core/formats/archive/entries'
import type { ReadLimits } from '../../../core/formats/limits'
import { FormatRefusal } from '../../../core/formats/refusal'

/** Bytes at rest: a file, or a buffer. Reads are whole or throw. */
export interface Source {
  readonly size: number
  readonly read: (offset: number, length: number) => Buffer
  readonly readInto: (into: Buffer, offset: number, length: number) => void
  readonly close: () => void
}

const windowSize = 1024 * 1024
/** A file, read through one window, so that many small entries side by side cost few calls. */
export function fileSource(path: string): Source {
  const file = openSync(path, 'r')
  const size = fstatSync(file).size
  const window = Buffer.allocUnsafe(Math.min(windowSize, Math.max(size, 1)))
  let from = 0
  let filled = 0
  const fill = (into: Buffer, offset: number, length: number): void => {
    for (let at = 0; at < length;) {
      const count = readSync(file, into, at, length - at, offset + at)
      if (count === 0) throw new Error('the file ends before it should')
      at += count
    }
  }
  return {
    size,
    read(offset, length) {
      if (offset < 0 || length < 0 || offset + length > size)
        throw new Error('the file ends before it should')
      const into = Buffer.allocUnsafe(length)
      if (length > window.length) {
        fill(into, offset, length)
        return into
      }
      if (offset < from || offset + length > from + filled) {
        from = offset
        filled = Math.min(window.length, size - offset)
        fill(window, from, filled)
      }
      window.copy(into, 0, offset - from, offset - from + length)
      return into
    },
    readInto(into, offset, length) {
      if (offset < 0 || length < 0 || offset + length > size)
        throw new Error('the file ends before it should')
      fill(into, offset, length)
    },
    close: () => closeSync(file),
  }
}
export const bufferSource = (bytes: Uint8Array): Source => {
  const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  return {
    size: buffer.length,
    read(offset, length) {
      if (offset < 0 || length < 0 || offset + length > buffer.length)
        throw new Error('the file ends before it should')
      return buffer.subarray(offset, offset + length)
    },
    readInto(into, offset, length) {
      if (offset < 0 || length < 0 || offset + length > buffer.length)
        throw new Error('the file ends before it should')
      buffer.copy(into, 0, offset, offset + length)
    },
    close() {},
  }
}

class Reader extends yauzl.RandomAccessReader {
  constructor(private readonly source: Source) {
    super()
  }
  override read(
    buffer: Buffer,
    offset: number,
    length: number,
    position: number,
    done: (error: Error | null) => void,
  ): void {
    let failure: Error | null = null
    try {
      this.source.read(position, length).copy(buffer, offset)
    } catch (error) {
      failure = error instanceof Error ? error : new Error(messageOf(error))
    }
    setImmediate(done, failure)
  }
}

/** What made the archive, where it says what its permission bits mean: Unix or OS X (APPNOTE §4.4.2). */
const hasModes = (entry: yauzl.Entry): boolean => [3, 19].includes(entry.versionMadeBy >>> 8)
const symbolicLink = 0o120000

async function directoryOf(
  name: string,
  source: Source,
  limits: ReadLimits,
): Promise<{ entries: Map<string, yauzl.Entry>; found: DirectoryEntry[] }> {
  const zip = await yauzl.fromRandomAccessReaderPromise(new Reader(source), source.size, {
    decodeStrings: false,
    autoClose: false,
    validateEntrySizes: false,
  })
  if (zip.entryCount > limits.entries)
    throw new FormatRefusal('too-many-files', name, { most: limits.entries })
  const entries = new Map<string, yauzl.Entry>()
  const found: DirectoryEntry[] = []
  for await (const entry of zip.eachEntry()) {
    // As the name is written: the library's own mending of backslashes would hide two names that become one.
    const path = yauzl.getFileNameLowLevel(
      entry.generalPurposeBitFlag,
      entry.fileName as unknown as Buffer,
      entry.extraFields,
      true,
    )
    const mode = entry.externalFileAttributes >>> 16
    entries.set(path.replaceAll('\\', '/'), entry)
    found.push({
      path,
      size: entry.uncompressedSize,
      packedSize: entry.compressedSize,
      encrypted: entry.isEncrypted(),
      method: entry.compressionMethod,
      mode: hasModes(entry) || (mode & 0o170000) === symbolicLink ? mode : 0,
      offset: entry.relativeOffsetOfLocalHeader,
      headerLength: 30 + entry.fileNameLength,
    })
  }
  return { entries, found }
}

/**
 * Opens a zip archive: every entry is checked before any is unpacked. The central directory is what counts; a local header
 * that names another file than its entry is refused.
 * @throws FormatRefusal where it is no archive, damaged, or made to do harm.
 */
export async function openZip(name: string, source: Source, limits: ReadLimits): Promise<Archive> {
  const damaged = (error: unknown): FormatRefusal =>
    error instanceof FormatRefusal ? error : new FormatRefusal('zip-damaged', name, { why: messageOf(error) })
  if (source.size < 22 || source.read(0, 2).toString('latin1') !== 'PK')
    throw new FormatRefusal('not-a-zip', name)
  const { entries, found } = await directoryOf(name, source, limits).catch((error: unknown) => {
    throw damaged(error)
  })
  const admitted = admitEntries(name, found, limits)

  /** Where an entry's packed bytes start, its local header compared with the directory. */
  const startOf = (path: string, entry: yauzl.Entry): number => {
    const cut = (end: number): void => {
      if (end > source.size) throw new FormatRefusal('zip-cut-off', name, { path })
    }
    cut(entry.relativeOffsetOfLocalHeader + 30)
    const header = source.read(entry.relativeOffsetOfLocalHeader, 30)
    if (header.readUInt32LE(0) !== 0x04034b50) throw new FormatRefusal('entry-without-header', name, { path })
    const nameLength = header.readUInt16LE(26)
    cut(entry.relativeOffsetOfLocalHeader + 30 + nameLength)
    const local = source.read(entry.relativeOffsetOfLocalHeader + 30, nameLength)
    if (!local.equals(entry.fileName as unknown as Buffer))
      throw new FormatRefusal('entry-named-otherwise', name, { path })
    if (header.readUInt16LE(8) !== entry.compressionMethod || (header.readUInt16LE(6) & 1) === 1)
      throw new FormatRefusal('entry-described-otherwise', name, { path })
    const start = entry.relativeOffsetOfLocalHeader + 30 + nameLength + header.readUInt16LE(28)
    cut(start + entry.compressedSize)
    return start
  }
  const lies = (path: string): FormatRefusal => new FormatRefusal('entry-size-lies', name, { path })
  const spoilt = (path: string, why = 'its checksum is wrong'): FormatRefusal =>
    new FormatRefusal('entry-damaged', path, { why })
  /** Packed and unpacked bytes that are handled in one piece. */
  const inOnePiece = 4 * windowSize

  async function* chunks(path: string): AsyncGenerator<Uint8Array> {
    const entry = present(entries.get(path))
    const start = startOf(path, entry)
    const end = start + entry.compressedSize
    let sum = 0
    let size = 0
    const see = (chunk: Buffer): Buffer => {
      if ((size += chunk.length) > entry.uncompressedSize) throw lies(path)
      sum = crc32(chunk, sum)
      return chunk
    }
    if (entry.compressionMethod === 0)
      for (let at = start; at < end; at += windowSize)
        yield see(source.read(at, Math.min(windowSize, end - at)))
    else if (entry.uncompressedSize <= inOnePiece && entry.compressedSize <= inOnePiece)
      yield see(inflated(path, source.read(start, entry.compressedSize), entry.uncompressedSize))
    else {
      const inflate = createInflateRaw({ chunkSize: 256 * 1024 })
      let at = start
      const feed = (): void => {
        while (at < end) {
          const length = Math.min(256 * 1024, end - at)
          const more = inflate.write(source.read(at, length))
          at += length
          if (!more) return void inflate.once('drain', feed)
        }
        inflate.end()
      }
      feed()
      try {
        for await (const chunk of inflate) yield see(chunk as Buffer)
      } catch (error) {
        throw error instanceof FormatRefusal ? error : spoilt(path, messageOf(error))
      }
    }
    if (size !== entry.uncompressedSize) throw lies(path)
    if (sum !== entry.crc32) throw spoilt(path)
  }
  // One piece of memory for all that is only compared: a gigabyte of recordings leaves no garbage.
  let scratch: Buffer | null = null
  async function check(path: string, seen: (bytes: number) => void): Promise<void> {
    const entry = present(entries.get(path))
    if (entry.compressionMethod !== 0) {
      let size = 0
      for await (const chunk of chunks(path)) seen((size += chunk.length))
      return
    }
    const start = startOf(path, entry)
    scratch ??= Buffer.allocUnsafe(windowSize)
    let sum = 0
    for (let at = 0; at < entry.compressedSize; at += windowSize) {
      const length = Math.min(windowSize, entry.compressedSize - at)
      source.readInto(scratch, start + at, length)
      sum = crc32(scratch.subarray(0, length), sum)
      seen(at + length)
    }
    if (sum !== entry.crc32) throw spoilt(path)
  }
  const inflated = (path: string, packed: Buffer, size: number): Buffer => {
    try {
      return inflateRawSync(packed, { maxOutputLength: Math.max(size, 1), finishFlush: constants.Z_FINISH })
    } catch (error) {
      if ((error as { code?: string }).code === 'ERR_BUFFER_TOO_LARGE') throw lies(path)
      throw spoilt(path, messageOf(error))
    }
  }
  return {
    name,
    entries: new Map(admitted.map(entry => [entry.path, entry])),
    chunks,
    check,
    async bytes(path) {
      const parts: Uint8Array[] = []
      for await (const chunk of chunks(path)) parts.push(chunk)
      return parts.length === 1 ? present(parts[0]) : Buffer.concat(parts)
    },
  }
}
