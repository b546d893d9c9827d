import { matchNamed } from '../carry/match'
import type { ItemState } from '../course/model'
import type { OutlineNode } from '../course/outline'
import type { PlanBase } from './base'
import { methodOf, ruleFor, type RuleSet } from '../dates/rule'
import type { PlanDocument } from './document'

/** Whether the rule for a thing takes away the date on which it opened. */
const losesOpening = ({ lineage, type, unit, kind }: OutlineNode, dates: RuleSet): boolean => {
  const item = { id: lineage, unit: type === 'unit' ? lineage : unit, kind: kind ?? '' }
  return methodOf(ruleFor(dates, item)).waits === true
}
/** In which state a thing arrives. What had been deleted is hidden at first; so is work for a group that is for nobody now. */
export function arrivalState(node: OutlineNode, { carry, dates }: PlanDocument): ItemState {
  const asWas = node.state === 'deleted' ? 'hidden' : node.state
  // What opened on a date and has none now waits for somebody to open it.
  const waits = node.opens !== null && losesOpening(node, dates)
  if (node.type === 'unit') return waits ? 'hidden' : asWas
  if (node.group !== null && carry.groups[node.group] === 'nobody') return 'hidden'
  const own = carry.states[node.lineage]
  if (own === undefined && waits) return 'hidden'
  const chosen = own ?? carry.arrive
  return chosen === 'as-was' ? asWas : chosen
}
/** The key in the shell of each rubric of the sources: of the shell's own where they meet, else its own. */
export function rubricsInShell({ source, more, found, target }: PlanBase): Map<string, string> {
  const all = [source, ...more, ...found].flatMap(side => side.rubrics)
  const matches = matchNamed(all, target.rubrics, {})
  return new Map(all.map(({ lineage }) => [lineage, matches.get(lineage)?.shell ?? lineage]))
}
