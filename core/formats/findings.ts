/** Something noticed while reading: an error costs what it is about, a warning may surprise, a note explains. `where`: file, and file and row or line. */
export interface Finding { readonly severity: 'error' | 'warning' | 'note', readonly where: string, readonly message: string }

/**
 * A file that is not what it should be. Nothing of it is used. `hostile`: nothing honest makes such a file, so that a whole
 * package is refused for one such part of it.
 */
export class FormatRefusal extends Error {
  override readonly name = 'FormatRefusal'
  constructor(readonly where: string, readonly reason: string, readonly hostile = false) { super(`${where}: ${reason}`) }
}

/** Findings as they come. Of each kind so many are listed; the others are counted, so that a table of a million wrong rows stays readable. */
export interface FindingList {
  add: (severity: Finding['severity'], where: string, message: string, kind?: string) => void
  all: () => Finding[]
}
export function findingList(most: number): FindingList {
  const listed: Finding[] = []
  const kinds = new Map<string, { count: number, last: Finding }>()
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
      return [...listed, ...more.map(({ count, last }) => ({ severity: last.severity, where: last.where, message: `and ${count - most} more like it; the last: ${last.message}` }))]
    },
  }
}
