import { withParts, type PlanDocument } from './document'
import type { Changed, Joiner, Told } from './join'

/** One thing that two plans decide differently: where, and what each decides, in words. */
export interface Difference {
  readonly path: string
  readonly here: string
  readonly there: string
}
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

/** A joiner that joins nothing: it notes what differs between mine and theirs, whatever both began from. */
function comparerFor(part: string, differences: Difference[]): Joiner {
  const one = <T>(path: string, { mine, theirs }: Changed<T>, told: Told<T>): T => {
    const whole = [part, path].filter(Boolean).join('.')
    if (!same(mine, theirs))
      differences.push({ path: whole, here: told(mine, theirs), there: told(theirs, mine) })
    return mine
  }
  return {
    one,
    keyed: (path, { from, mine, theirs }, told) => {
      for (const key of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
        const values = { from: from[key], mine: mine[key], theirs: theirs[key] }
        one([path, key].filter(Boolean).join('.'), values as Changed<never>, told as Told<never>)
      }
      return mine
    },
    members: (path, { mine, theirs }, words) => {
      if (!same([...mine].sort(), [...theirs].sort()))
        differences.push({
          path: [part, path].filter(Boolean).join('.'),
          here: `${mine.length} ${words}`,
          there: `${theirs.length} ${words}`,
        })
      return [...mine]
    },
  }
}
/** What two plans for shells of one set decide differently, of that which such shells have in common. */
export function planDifferences(here: PlanDocument, there: PlanDocument): Difference[] {
  const differences: Difference[] = []
  withParts(here, (part, value, name) =>
    part.furtherShells === 'the same'
      ? part.join(comparerFor(name, differences), { from: value, mine: value, theirs: there[name] })
      : value,
  )
  return differences
}
