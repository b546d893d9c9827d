import type { OutlineNode } from '../../course/outline'
import type { PassageChoices } from '../../prose/compose'
import { carriedAgain, type PartValues } from '../again'
import { isBefore, type CarriedBase } from '../base'
import type { PlacesDecisions } from '../decisions'
import { surenessOf, type Match } from '../match'
import type { LookedUp } from './looked-up'
import type { Happening, PlaceRow } from './row'

/** A thing of a source with what it meets in the shell, and what is known of it from before. */
export interface SourceThing {
  readonly node: OutlineNode
  readonly met: OutlineNode | null
  readonly match: Match | null
  readonly base: CarriedBase | undefined
}
/** What happens to one thing of a source, that would come with these values. */
export function whatHappens(
  known: LookedUp,
  { node, met, match, base }: SourceThing,
  carries: PartValues,
): Pick<PlaceRow, 'happens' | 'settle' | 'parts'> {
  const { texts, carried, away, decisions } = known
  const plainly = (happens: Happening, settle = false) => ({ happens, settle, parts: [] })
  if (texts.goesInto.has(node.lineage)) return plainly('joins')
  if (!carried.has(node.lineage)) {
    return plainly(!met && away.has(node.lineage) ? 'away' : 'left')
  }
  if (!met || !match) return plainly('adds')
  if (met.fixed) return plainly('fixed')
  const choice = decisions.choices[node.lineage]
  const isGuess = surenessOf(match.level) === 'guessed'
  if (met.holds) {
    if (choice === 'keep') return plainly('left')
    return choice === 'both' ? plainly('adds') : plainly('fills', isGuess && !choice)
  }
  if (base && isBefore(base)) {
    const chosen = decisions.parts[node.lineage] ?? {}
    const passages = passagesChosen(decisions, node, met, carries)
    const parts = carriedAgain(base.parts, carries, known.valuesHere(met, base), chosen, passages)
    const writes = parts.some(part => part.takes)
    return { happens: writes ? 'again' : 'there', settle: parts.some(part => part.settle), parts }
  }
  if (node.type === 'unit') {
    if (choice === 'both') return plainly('both')
    const takesName = choice === 'replace' || (!choice && decisions.titles[node.lineage] !== undefined)
    return plainly(takesName ? 'replaces' : 'joins', isGuess && !choice)
  }
  if (choice) return plainly(({ replace: 'replaces', keep: 'kept', both: 'both' } as const)[choice])
  return known.isOfTemplate(met) && !isGuess ? plainly('replaces') : plainly('both', true)
}

/** Passages chosen of a text, as long as both texts are those of which they were chosen. */
function passagesChosen(
  decisions: PlacesDecisions,
  node: OutlineNode,
  met: OutlineNode,
  carries: PartValues,
): PassageChoices | null {
  const passages = decisions.passages[node.lineage]
  const holds = passages && passages.source === carries.text && passages.shell === met.body
  return holds && node.isHtml && met.isHtml ? passages : null
}
