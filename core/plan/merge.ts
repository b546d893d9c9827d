import type { PlanDocument } from './document'

export interface Merged {
  readonly document: PlanDocument
  /** Paths of what both changed, each in another way; there mine stands. */ readonly clashes: string[]
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/**
 * Joins two people's changes to one plan that began from the same document. What only one of them changed is theirs; single items, units
 * and kinds are looked at each by itself, and what is left behind item by item. A rule is one decision: two who change one rule clash.
 */
export function mergePlans(base: PlanDocument, mine: PlanDocument, theirs: PlanDocument): Merged {
  const clashes: string[] = []
  const one = <T>(path: string, from: T, a: T, b: T): T => {
    if (same(a, b) || same(b, from)) return a
    if (same(a, from)) return b
    clashes.push(path)
    return a
  }
  // A missing key is a decision too: it was taken back.
  const keyed = <T extends Record<string, unknown>>(path: string, from: T, a: T, b: T): T => {
    const merged: Record<string, unknown> = {}
    for (const key of new Set([...Object.keys(from), ...Object.keys(a), ...Object.keys(b)])) {
      const value = one(`${path}.${key}`, from[key], a[key], b[key])
      if (value !== undefined) merged[key] = value
    }
    return merged as T
  }
  const [was, first, second] = [base, mine, theirs].map(document => new Set(document.carry.leave)) as [
    Set<string>,
    Set<string>,
    Set<string>,
  ]
  // An item has two states only, so that two changes of it from one state agree.
  const leave = [...new Set([...first, ...second])].filter(key =>
    was.has(key) ? first.has(key) && second.has(key) : true,
  )
  return {
    document: {
      ...mine,
      carry: { leave: same(base.carry.leave, theirs.carry.leave) ? mine.carry.leave : leave },
      dates: {
        rule: one('dates.rule', base.dates.rule, mine.dates.rule, theirs.dates.rule),
        kindRules: keyed(
          'dates.kindRules',
          base.dates.kindRules,
          mine.dates.kindRules,
          theirs.dates.kindRules,
        ),
        unitRules: keyed(
          'dates.unitRules',
          base.dates.unitRules,
          mine.dates.unitRules,
          theirs.dates.unitRules,
        ),
        itemRules: keyed(
          'dates.itemRules',
          base.dates.itemRules,
          mine.dates.itemRules,
          theirs.dates.itemRules,
        ),
      },
      names: keyed('names', base.names, mine.names, theirs.names),
      windows:
        isRecord(base.windows) && isRecord(mine.windows) && isRecord(theirs.windows)
          ? keyed('windows', base.windows, mine.windows, theirs.windows)
          : one('windows', base.windows, mine.windows, theirs.windows),
    },
    clashes,
  }
}
