import { findingKinds, type FindingCode, type Known, type Severity } from './finding-kinds'

/** Something noticed while reading; `details` are those of its code. */
export type Finding = {
  [Code in FindingCode]: {
    readonly severity: Severity
    readonly code: Code
    readonly details?: Known<Code>[0]
    /** The file, and the row or line in it. */
    readonly where: string
    readonly message: string
    readonly about?: 'columns'
    /** How many it stands for, where it is more than itself. */
    readonly count?: number
  }
}[FindingCode]

const textKept = 300
/** Details as they are kept: no text longer than its sentence needs, whatever a file holds. */
const brief = <T>(details: T): T =>
  JSON.parse(
    JSON.stringify(details, (_key, value: unknown) =>
      typeof value === 'string' && value.length > textKept ? value.slice(0, textKept) : value,
    ),
  ) as T

/** A finding from its code and what is known of it. */
export function finding<Code extends FindingCode>(code: Code, where: string, ...known: Known<Code>): Finding {
  const { severity, says, about } = kindOf(code)
  const kept = known.map(brief) as Known<Code>
  return {
    severity: severity(...kept),
    code,
    ...(kept.length > 0 && { details: kept[0] }),
    where,
    message: says(...kept),
    ...(about && { about }),
  } as Finding
}
/** A kind whose code is only known as one of them. */
const kindOf = <Code extends FindingCode>(code: Code) =>
  findingKinds[code] as unknown as {
    severity: (...known: Known<Code>) => Severity
    says: (...known: Known<Code>) => string
    apart: (...known: Known<Code>) => string
    about?: 'columns'
  }

/** Findings as they come. Of each kind so many are listed; the others are counted, so that a table of a million wrong rows stays readable. */
export interface FindingList {
  add: <Code extends FindingCode>(code: Code, where: string, ...known: Known<Code>) => void
  all: () => Finding[]
}
export function findingList(most: number): FindingList {
  const listed: Finding[] = []
  const kinds = new Map<string, { count: number; last: () => Finding }>()
  return {
    add(code, where, ...known) {
      const { severity, apart } = kindOf(code)
      const kind = `${severity(...known)} ${code} ${apart(...known)}`
      const so = kinds.get(kind) ?? { count: 0, last: () => finding(code, where, ...known) }
      so.count++
      so.last = () => finding(code, where, ...known)
      kinds.set(kind, so)
      if (so.count <= most) listed.push(so.last())
    },
    all() {
      const more = [...kinds.values()].filter(kind => kind.count > most)
      return [
        ...listed,
        ...more.map(({ count, last }) => {
          const told = last()
          const message = `and ${count - most} more like it; the last: ${told.message}`
          return { ...told, count: count - most, message }
        }),
      ]
    },
  }
}
