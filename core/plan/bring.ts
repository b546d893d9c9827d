import { foundNodes, madeNodes } from '../carry/added'
import { soundInto } from '../carry/into'
import { carriedOf, leftBehind, staysUnasked, type StaysWhy } from '../carry/select'
import { sourcesOf, type CarrySide, type PlanBase } from './base'
import { mergeSources, type MergedSources } from './sources'

const holdsNothing = {
  categories: [],
  grading: null,
  grace: null,
  rubrics: [],
  groups: [],
  furniture: [],
} as const
/** All that a plan brings from, in order: its sources, what is taken of other courses, and what is made in the plan, which comes from no course. */
export function sidesOf(base: PlanBase): CarrySide[] {
  const { added, places } = base.document
  const parents = new Map(
    sourcesOf(base).flatMap(({ nodes }) => nodes.map(node => [node.lineage, node.parent])),
  )
  const into = soundInto(places.into, lineage => parents.get(lineage) ?? null)
  return [
    ...sourcesOf(base),
    ...base.found.map(course => ({
      ...holdsNothing,
      rubrics: course.rubrics,
      nodes: foundNodes(added, course, into),
    })),
    { ...holdsNothing, nodes: madeNodes(added, into) },
  ]
}
/** What comes of one outline of all that a plan brings. */
export interface Brought {
  readonly sides: readonly CarrySide[]
  /** All that a plan brings as one outline. */
  readonly merged: MergedSources
  /** Why each thing stays behind that does unless one asks for it. */
  readonly stays: ReadonlyMap<string, StaysWhy>
  /** The lineage keys of all that a plan carries. */
  readonly carried: ReadonlySet<string>
}
/** Why each thing stays behind that does unless one asks for it. */
export const staysOf = (
  {
    document,
    target,
    before,
    inPlace,
  }: Pick<PlanBase, 'target' | 'before' | 'inPlace'> & {
    document: { places: Pick<PlanBase['document']['places'], 'further'> }
  },
  { nodes }: MergedSources,
): ReadonlyMap<string, StaysWhy> =>
  inPlace
    ? new Map<string, StaysWhy>()
    : staysUnasked(nodes, {
        nodes: target.nodes,
        bases: before.bases,
        deleted: new Set(before.deleted),
        goesInto: new Set(Object.values(document.places.further).flat()),
      })
/** The lineage keys of all that a plan carries. */
export const carriedBy = (
  { carry }: Pick<PlanBase['document'], 'carry'>,
  { nodes }: MergedSources,
  stays: ReadonlyMap<string, StaysWhy>,
): ReadonlySet<string> => carriedOf(nodes, leftBehind(carry, stays))

/** What a plan brings, and what of it stays behind: computed once, and handed to whoever computes further. */
export function bring(base: PlanBase): Brought {
  const sides = sidesOf(base)
  const merged = mergeSources(sides)
  const stays = staysOf(base, merged)
  return { sides, merged, stays, carried: carriedBy(base.document, merged, stays) }
}
