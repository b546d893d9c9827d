import { basesAfter, placesLedger, type PlaceRow } from '../../core/carry/places'
import type { CarriedBase } from '../../core/carry/base'
import { carriedAs } from '../../core/carry/base'
import { noPlaces, type PlacesDecisions } from '../../core/carry/decisions'
import { matchThings } from '../../core/carry/match'
import { carriedOf, leftBehind, staysUnasked, type Chosen } from '../../core/carry/select'
import { inCourseOrder, type OutlineNode } from '../../core/course/outline'

/** A shell, and what earlier runs left to compare with: what a run is made from, without a database. */
export interface World {
  readonly shell: readonly OutlineNode[]
  readonly bases: readonly CarriedBase[]
}
export interface Wanted {
  readonly chosen?: Chosen
  readonly decisions?: Partial<PlacesDecisions>
}

/** The ledger of places of a roll from some sources into the shell. */
export function ledgerOf(
  { shell, bases }: World,
  sources: readonly OutlineNode[],
  { chosen = { leave: [], take: [] }, decisions }: Wanted = {},
): PlaceRow[] {
  const places = { ...noPlaces, ...decisions }
  const stays = staysUnasked(sources, { nodes: shell, bases, deleted: new Set() })
  return placesLedger({
    sources,
    shell,
    bases,
    away: new Set([...stays].filter(([, why]) => why === 'removed-here').map(([lineage]) => lineage)),
    carried: carriedOf(sources, leftBehind(chosen, stays)),
    matches: matchThings({ sources, shell, byHand: places.pairs, carriedAs: carriedAs(bases) }),
    decisions: places,
    arrival: {
      dates: new Map(sources.map(node => [node.lineage, node])),
      category: node => node.category,
      state: node => node.state,
    },
  })
}
/** What the shell holds once the rows were written, as a run writes them. */
export function written({ shell, bases }: World, rows: readonly PlaceRow[]): World {
  const former = new Map(shell.map(node => [node.lineage, node]))
  const nodes = rows.flatMap((row): OutlineNode[] => {
    const { source, shell: was, lineage, parent, position, happens } = row
    if (lineage === null) return []
    const place = { lineage, parent, position }
    if (source && ['adds', 'both', 'fills', 'replaces'].includes(happens))
      return [{ ...source, ...place, holds: null, madeBy: 'run' }]
    const old = was && former.get(was.lineage)
    if (!old) return []
    const taken = new Set(row.parts.filter(part => part.takes).map(({ part }) => part))
    if (!source || happens !== 'again') return [{ ...old, ...place }]
    const { title, body, size, points, category, state, opens, due, closes } = source
    return [
      {
        ...old,
        ...place,
        ...(taken.has('title') && { title }),
        ...(taken.has('text') && { body, size }),
        ...(taken.has('points') && { points }),
        ...(taken.has('category') && { category }),
        ...(taken.has('dates') && { opens, due, closes }),
        ...(taken.has('state') && { state }),
      },
    ]
  })
  const after = basesAfter(rows, bases)
  const renewed = new Set(after.map(base => base.source))
  return {
    shell: inCourseOrder(nodes),
    bases: [...bases.filter(base => base.how === 'template' || !renewed.has(base.source)), ...after],
  }
}
