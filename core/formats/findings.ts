/** Something noticed while reading: an error costs what it is about, a warning may surprise, a note explains. `where`: file, and file and row or line. */
export interface Finding {
  readonly severity: 'error' | 'warning' | 'note'
  readonly where: string
  readonly message: string
  /** What it is, whatever its sentence says; kinds are counted by it. */
  readonly code?: FindingCode
  /** `columns`: rests on what the columns of a table were taken to mean, and falls away where a person says otherwise. */
  readonly about?: 'columns'
  /** How many it stands for, where it is more than itself. */ readonly count?: number
}

/**
 * Why a file is not read: it is not what it should be (`unlike`), over a limit (`limit`), or as nothing honest makes it (`hostile`).
 * For the last two a whole package is refused, whichever part of it is so.
 */
export type Unreadable = 'unlike' | 'limit' | 'hostile'
const wayOn: Record<Unreadable, string> = {
  unlike: 'Export it again where it came from, and send that.',
  limit: 'If it is meant to be so, whoever runs Northtide can raise the limit.',
  hostile: 'Do not open it elsewhere: ask for a new export, and show this one to the help desk.',
}

/** A file that is refused; nothing of it is used. */
export class FormatRefusal extends Error {
  override readonly name = 'FormatRefusal'
  constructor(
    readonly where: string,
    readonly reason: string,
    readonly why: Unreadable = 'unlike',
  ) {
    super(`${where}: ${reason}`)
  }
  /** What to do about it, as a sentence. */
  get wayOn(): string {
    return wayOn[this.why]
  }
}

/** What can be noticed while reading, as a code; some are told by several readers. */
export const findingCodes = [
  // Any file.
  'encoding',
  'packed-in-folder',
  'title-cut',
  // Common Cartridge.
  'manifest-remark',
  'several-organisations',
  'no-organisation',
  'no-root-item',
  'resource-identifier',
  'item-identifier',
  'resource-unlisted',
  'dependency-unlisted',
  'file-absent',
  'file-unlisted',
  'link-absent',
  'led-to',
  'never-referenced',
  'no-file',
  'damaged',
  'unlike-its-type',
  'type-not-read',
  'xml-too-long',
  'staff-only',
  'no-address',
  'address-kept-out',
  'no-launch-address',
  'no-question',
  'beyond-profile',
  'question-unlike',
  'points-unread',
  // iCalendar.
  'not-events',
  'zone-unknown',
  'zone-unreadable',
  'event-unreadable',
  'in-utc',
  'too-long',
  'too-often',
  'endless',
  'outside',
  'cancelled',
  'no-event',
  'end-unreadable',
  'end-before-start',
  'duration-below-zero',
  'rdate-unreadable',
  'exdate-unreadable',
  // OneRoster.
  'mode-unknown',
  'table-unnamed',
  'table-absent',
  'not-a-table',
  'column-spelled',
  'delimiter',
  'status-unknown',
  'too-wide',
  'value-unlike',
  'reference-unknown',
  'key-twice',
  'to-be-deleted',
  // Tables of dates.
  'first-day-unreadable',
  'last-day-unreadable',
  'last-day-before-first',
  'no-name',
] as const
export type FindingCode = (typeof findingCodes)[number]

/** Findings as they come. Of each kind so many are listed; the others are counted, so that a table of a million wrong rows stays readable. */
export interface FindingList {
  /** `of`: what the same code is counted apart for, as a column. */
  add: (severity: Finding['severity'], code: FindingCode, where: string, message: string, of?: string) => void
  all: () => Finding[]
}
export function findingList(most: number): FindingList {
  const listed: Finding[] = []
  const kinds = new Map<string, { count: number; last: Finding }>()
  return {
    add(severity, code, where, message, of = '') {
      const finding: Finding = { severity, code, where, message }
      const kind = `${severity} ${code} ${of}`
      const so = kinds.get(kind) ?? { count: 0, last: finding }
      so.count++
      so.last = finding
      kinds.set(kind, so)
      if (so.count <= most) listed.push(finding)
    },
    all() {
      const more = [...kinds.values()].filter(kind => kind.count > most)
      return [
        ...listed,
        ...more.map(({ count, last }) => ({
          severity: last.severity,
          ...(last.code && { code: last.code }),
          where: last.where,
          count: count - most,
          message: `and ${count - most} more like it; the last: ${last.message}`,
        })),
      ]
    },
  }
}
