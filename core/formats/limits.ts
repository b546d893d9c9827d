/** What a file may be at most before it is refused. Every value can be set by the environment (`server/exchange/files/limits.ts`). */
export interface ReadLimits {
  /** Entries of an archive. */
  readonly entries: number
  /** Bytes that all entries of an archive unpack to. */
  readonly unpackedBytes: number
  /** How many times larger an entry of over 1 MiB, or an archive of over 16 MiB, may be unpacked than packed. */
  readonly ratio: number
  /** Units in units, items in items. */
  readonly nesting: number
  /** Elements in elements of an XML document. */
  readonly xmlDepth: number
  /** Bytes of one XML document. */
  readonly xmlBytes: number
  /** Bytes of one page whose links are read. */
  readonly pageBytes: number
  /** Characters of a title. */
  readonly titleLength: number
  /** Rows of one table. */
  readonly rows: number
  /** Bytes of one table, calendar or sheet. */
  readonly textBytes: number
  /** Events of a calendar after its rules are worked out. */
  readonly events: number
  /** Events that one rule may make. */
  readonly occurrences: number
  /** Findings of one kind that are listed one by one. */
  readonly findings: number
}

const MiB = 1024 * 1024
export const readLimits: ReadLimits = {
  entries: 50_000,
  unpackedBytes: 2048 * MiB,
  ratio: 200,
  nesting: 100,
  xmlDepth: 256,
  xmlBytes: 32 * MiB,
  pageBytes: 16 * MiB,
  titleLength: 10_000,
  rows: 2_000_000,
  textBytes: 256 * MiB,
  events: 500_000,
  occurrences: 20_000,
  findings: 200,
}

/** A number of bytes as people read it. */
export const sizeText = (bytes: number): string =>
  bytes < 1024
    ? `${bytes} bytes`
    : bytes < MiB
      ? `${Math.round(bytes / 1024)} KiB`
      : `${Math.round(bytes / MiB)} MiB`
