const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
type Keyed = Readonly<Record<string, unknown>>

/** Joins values that two people changed from a common one; notes where both changed one thing, each in another way: there mine stands. */
export interface Joiner {
  /** One decision, whole. */
  readonly one: <T>(path: string, from: T, mine: T, theirs: T) => T
  /** Several decisions by key, each by itself; a key taken away is a decision too. */
  readonly keyed: <T extends Keyed>(path: string, from: T, mine: T, theirs: T) => T
  /** A list of which each member is there or not, two changes of which always agree. */
  readonly members: (from: readonly string[], mine: readonly string[], theirs: readonly string[]) => string[]
}

/** A joiner for one part of a plan; paths of clashes are added to `clashes`, below the part's name. */
export function joinerFor(part: string, clashes: string[]): Joiner {
  const one = <T>(path: string, from: T, mine: T, theirs: T): T => {
    if (same(mine, theirs) || same(theirs, from)) return mine
    if (same(mine, from)) return theirs
    clashes.push([part, path].filter(Boolean).join('.'))
    return mine
  }
  const keyed = <T extends Keyed>(path: string, from: T, mine: T, theirs: T): T => {
    const keys = new Set([from, mine, theirs].flatMap(each => Object.keys(each)))
    const joined = [...keys].map(key => [
      key,
      one([path, key].filter(Boolean).join('.'), from[key], mine[key], theirs[key]),
    ])
    return Object.fromEntries(joined.filter(([, value]) => value !== undefined)) as T
  }
  const members: Joiner['members'] = (from, mine, theirs) => {
    if (same(from, theirs)) return [...mine]
    const [was, first, second] = [new Set(from), new Set(mine), new Set(theirs)]
    return [...new Set([...mine, ...theirs])].filter(key =>
      was.has(key) ? first.has(key) && second.has(key) : true,
    )
  }
  return { one, keyed, members }
}
