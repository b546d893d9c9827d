import { withParts, type PlanDocument } from './document'
import { joinerFor } from './join'

export interface Merged {
  readonly document: PlanDocument
  /** Paths of what both changed, each in another way; there mine stands. */
  readonly clashes: string[]
}

/**
 * Joins two people's changes to one plan that began from the same document, part by part. What only one of them changed is
 * theirs; single items, units and kinds are looked at each by itself, and what is left behind item by item.
 */
export function mergePlans(from: PlanDocument, mine: PlanDocument, theirs: PlanDocument): Merged {
  const clashes: string[] = []
  const document = withParts(mine, (part, value, name) =>
    part.join(joinerFor(name, clashes), from[name], value, theirs[name]),
  )
  return { document, clashes }
}
