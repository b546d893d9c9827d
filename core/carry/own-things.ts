import type { OutlineNode } from '../course/outline'
import { isUntouched } from './again'
import type { CarriedBase } from './base'
import { valuesHere } from './places/looked-up'

/**
 * Things of a course that are its own: not just as its template or a run from one of some sources brought them. What is not
 * its own can be had again, and may go where the course is to show another's content. `datesKept`: things whose dates stay with the course
 * all the same, so that no dates make them its own.
 */
export function ownThings(
  nodes: readonly OutlineNode[],
  bases: readonly CarriedBase[],
  sources: ReadonlySet<string>,
  datesKept: ReadonlySet<string> = new Set(),
): OutlineNode[] {
  const brought = new Map<string, CarriedBase[]>()
  for (const base of bases) {
    const isFromThese = base.how === 'carried' && base.of !== undefined && sources.has(base.of)
    if (base.how === 'template' || isFromThese)
      brought.set(base.lineage, [...(brought.get(base.lineage) ?? []), base])
  }
  const isAsItCame = (node: OutlineNode): boolean =>
    (brought.get(node.lineage) ?? []).some(base =>
      isUntouched(
        datesKept.has(node.lineage) ? { ...base.parts, dates: null } : base.parts,
        valuesHere(node, base),
      ),
    )
  return nodes.filter(node => node.state !== 'deleted' && !isAsItCame(node))
}
