import { withParts, type PlanDocument } from './document'
import { joinerFor, type Changed, type Choices, type Clash } from './join'

export interface Merged {
  readonly document: PlanDocument
  /** What both changed, each in another way; there mine stands, or what was chosen. */
  readonly clashes: Clash[]
}

/**
 * Joins two people's changes to one plan that began from the same document, part by part. What only one of them changed is
 * theirs; single items, units and kinds are looked at each by itself, and what is left behind item by item.
 */
export function mergePlans({ from, mine, theirs }: Changed<PlanDocument>, choices: Choices = {}): Merged {
  const clashes: Clash[] = []
  const document = withParts(mine, (part, value, name) =>
    part.join(joinerFor(name, clashes, choices), { from: from[name], mine: value, theirs: theirs[name] }),
  )
  return { document, clashes }
}
