/** Something noticed while reading: an error costs what it is about, a warning may surprise, a note explains. `where`: file, and file and row or line. */
export interface Finding {
  readonly severity: 'error' | 'warning' | 'note'
  readonly where: string
  readonly message: string
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

/** Findings as they come. Of each kind so many are listed; the others are counted, so that a table of a million wrong rows stays readable. */
export interface FindingList {
  add: (severity: Finding['severity'], where: string, message: string, kind?: string) => void
  all: () => Finding[]
}
export function findingList(most: number): FindingList {
  const listed: Finding[] = []
  const kinds = new Map<string, { count: number; last: Finding }>()
  return {
    add(severity, where, message, kind = `${severity} ${message.replace(/“[^”]*”|"[^"]*"|\d+/g, '')}`) {
      const finding: Finding = { severity, where, message }
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
          where: last.where,
          count: count - most,
          message: `and ${count - most} more like it; the last: ${last.message}`,
        })),
      ]
    },
  }
}
