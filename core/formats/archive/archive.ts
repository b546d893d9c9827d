/** An entry that has passed every check. Sizes in bytes. */
export interface ArchiveEntry {
  readonly path: string
  readonly size: number
}

/**
 * An archive whose entries have passed every check (`entries.ts`). Bytes are unpacked when asked for and compared with the
 * size and checksum the archive gives; what does not agree throws a FormatRefusal.
 */
export interface Archive {
  readonly name: string
  /** Files by path, in the order in which they lie in the archive. */
  readonly entries: ReadonlyMap<string, ArchiveEntry>
  readonly bytes: (path: string) => Promise<Uint8Array>
  readonly chunks: (path: string) => AsyncIterable<Uint8Array>
  /** Unpacks a file, compares it, and keeps nothing of it; `seen` is told of bytes unpacked so far. */
  readonly check: (path: string, seen: (bytes: number) => void) => Promise<void>
}

/** Files held in memory as an archive. */
export function archiveOf(name: string, files: ReadonlyMap<string, Uint8Array>): Archive {
  return {
    name,
    entries: new Map([...files].map(([path, bytes]) => [path, { path, size: bytes.length }])),
    bytes: async path => files.get(path)!,
    async *chunks(path) {
      yield files.get(path)!
    },
    async check() {
      /* it lies unpacked in memory */
    },
  }
}
