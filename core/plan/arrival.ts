import { matchNamed } from '../carry/match'
import type { ItemState } from '../course/model'
import type { OutlineNode } from '../course/outline'
import type { CarryBase } from './compile'
import type { PlanDocument } from './document'

/** In which state a thing arrives. What had been deleted is hidden at first; so is work for a group that is for nobody now. */
export function arrivalState(node: OutlineNode, { carry }: PlanDocument): ItemState {
  const asWas = node.state === 'deleted' ? 'hidden' : node.state
  if (node.type === 'unit') return asWas
  if (node.group !== null && carry.groups[node.group] === 'nobody') return 'hidden'
  const chosen = carry.states[node.lineage] ?? carry.arrive
  return chosen === 'as-was' ? asWas : chosen
}
/** The key in the shell of each rubric of the sources: of the shell's own where they meet, else its own. */
export function rubricsInShell({ source, more, found, target }: CarryBase): Map<string, string> {
  const all = [source, ...more, ...found].flatMap(side => side.rubrics)
  const matches = matchNamed(all, target.rubrics, {})
  return new Map(all.map(({ lineage }) => [lineage, matches.get(lineage)?.shell ?? lineage]))
}
