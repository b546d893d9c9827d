const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
type Keyed = Readonly<Record<string, unknown>>

/** One thing that two people both changed, each in another way: where in the plan, and what each made of it, in words. */
export interface Clash {
  readonly path: string
  readonly mine: string
  readonly theirs: string
}
export type Whose = 'mine' | 'theirs'
/** Whose change stands, by the path of the clash; where nobody has chosen, mine does. */
export type Choices = Readonly<Record<string, Whose>>

/** Says in words what one person made of a thing, with what the other made of it to tell the two apart. */
export type Told<T> = (value: T | undefined, other: T | undefined) => string

/** Joins values that two people changed from a common one, and notes where both changed one thing, each in another way. */
export interface Joiner {
  /** One decision, whole. */
  readonly one: <T>(path: string, values: Changed<T>, told: Told<T>) => T
  /** Several decisions by key, each by itself; a key taken away is a decision too. */
  readonly keyed: <T extends Keyed>(path: string, values: Changed<T>, told: Told<T[keyof T]>) => T
  /** A list of which each member is there or not, two changes of which always agree. `words`: what so many of them are, `left behind`. */
  readonly members: (path: string, values: Changed<readonly string[]>, words: string) => string[]
}
/** A value as it was, and as each of the two has it now. */
export interface Changed<T> {
  readonly from: T
  readonly mine: T
  readonly theirs: T
}
/** The same of a part of it. */
export const changedIn = <T, K extends keyof T>(
  { from, mine, theirs }: Changed<T>,
  key: K,
): Changed<T[K]> => ({
  from: from[key],
  mine: mine[key],
  theirs: theirs[key],
})

/** A joiner for one part of a plan; clashes are added to `clashes`, with paths below the part's name. */
export function joinerFor(part: string, clashes: Clash[], choices: Choices): Joiner {
  const one = <T>(path: string, { from, mine, theirs }: Changed<T>, told: Told<T>): T => {
    if (same(mine, theirs) || same(theirs, from)) return mine
    if (same(mine, from)) return theirs
    const whole = [part, path].filter(Boolean).join('.')
    clashes.push({ path: whole, mine: told(mine, theirs), theirs: told(theirs, mine) })
    return choices[whole] === 'theirs' ? theirs : mine
  }
  const keyed = <T extends Keyed>(path: string, values: Changed<T>, told: Told<T[keyof T]>): T => {
    const keys = new Set([values.from, values.mine, values.theirs].flatMap(each => Object.keys(each)))
    const joined = [...keys].map((key: keyof T & string) => [
      key,
      one([path, key].filter(Boolean).join('.'), changedIn(values, key), told),
    ])
    return Object.fromEntries(joined.filter(([, value]) => value !== undefined)) as T
  }
  const members: Joiner['members'] = (_path, { from, mine, theirs }) => {
    if (same(from, theirs)) return [...mine]
    const [was, first, second] = [new Set(from), new Set(mine), new Set(theirs)]
    return [...new Set([...mine, ...theirs])].filter(key =>
      was.has(key) ? first.has(key) && second.has(key) : true,
    )
  }
  return { one, keyed, members }
}
