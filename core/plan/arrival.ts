import { matchNamed } from '../carry/match'
import type { ItemState } from '../course/model'
import type { OutlineNode } from '../course/outline'
import type { CarryBase } from './compile'
import { methodOf, ruleFor, type RuleSet } from '../dates/rule'
import type { PlanDocument } from './document'

/** Whether the rule for an item takes away the date on which it opened. */
const losesOpening = ({ lineage, unit, kind }: OutlineNode, dates: RuleSet): boolean =>
  methodOf(ruleFor(dates, { id: lineage, unit, kind: kind ?? '' })).waits === true
/** In which state a thing arrives. What had been deleted is hidden at first; so is work for a group that is for nobody now. */
export function arrivalState(node: OutlineNode, { carry, dates }: PlanDocument): ItemState {
  const asWas = node.state === 'deleted' ? 'hidden' : node.state
  if (node.type === 'unit') return asWas
  if (node.group !== null && carry.groups[node.group] === 'nobody') return 'hidden'
  const own = carry.states[node.lineage]
  if (own === undefined && node.opens !== null && losesOpening(node, dates)) return 'hidden'
  const chosen = own ?? carry.arrive
  return chosen === 'as-was' ? asWas : chosen
}
/** The key in the shell of each rubric of the sources: of the shell's own where they meet, else its own. */
export function rubricsInShell({ source, more, found, target }: CarryBase): Map<string, string> {
  const all = [source, ...more, ...found].flatMap(side => side.rubrics)
  const matches = matchNamed(all, target.rubrics, {})
  return new Map(all.map(({ lineage }) => [lineage, matches.get(lineage)?.shell ?? lineage]))
}
