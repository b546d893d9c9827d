import { carriedAs } from '../carry/base'
import { matchThings, type Match, type PairedByHand } from '../carry/match'
import { placesLedger } from '../carry/places/ledger'
import { writesSource, writesText, type PlaceRow } from '../carry/places/row'
import type { PlannedItem } from '../dates/plan'
import { gradedAs, type PlannedGrades } from '../grading/plan'
import { arrivalState, rubricsInShell } from './arrival'
import type { PlanBase } from './base'
import type { Brought } from './bring'
import { gradesOf, redactedIn } from './grades'
import { comesAsFrame } from './parts/carry'
import type { RedactedThings } from './redacted'
import type { MergedSources } from './sources'

/** What meets what, between the sources of a plan and its shell. */
export const matchesOf = (
  { target, before }: Pick<PlanBase, 'target' | 'before'>,
  merged: MergedSources,
  byHand: PairedByHand,
): Map<string, Match> =>
  matchThings({
    sources: merged.nodes,
    shell: target.nodes,
    byHand,
    carriedAs: carriedAs(before.bases),
  })

/** All that a plan decides of places and grades, computed in one go. */
export interface CarriedPlan extends Brought {
  grades: PlannedGrades
  /** The key in the shell of each rubric of the sources. */
  rubrics: ReadonlyMap<string, string>
  rows: PlaceRow[]
  redacted: RedactedThings
}
/** Where everything lands, once that is computed; null: it is not yet. */
type Dates = ReadonlyMap<string, PlannedItem> | null
/** Where a run of now would put everything. */
export function carriedPlan(
  base: PlanBase,
  brought: Brought,
  { matches, dates }: { matches: ReadonlyMap<string, Match>; dates: Dates },
): CarriedPlan {
  const { document, target, before } = base
  const { merged, stays, carried } = brought
  const grades = gradesOf(base, brought)
  const redacted = redactedIn(base)
  const rows = placesLedger({
    sources: merged.nodes,
    carried,
    away: new Set([...stays].filter(([, why]) => why === 'removed-here').map(([lineage]) => lineage)),
    shell: target.nodes,
    bases: before.bases,
    matches,
    decisions: document.places,
    arrival: {
      dates,
      category: node => gradedAs(node, grades, document.grades).category,
      state: node => arrivalState(node, document),
      isFrame: node => comesAsFrame(document.carry, node),
      given: ({ lineage }) => {
        const given = document.carry.settings[lineage]
        const mark = redacted.get(lineage)?.settings ?? null
        const changes = [...(given ? [JSON.stringify(given)] : []), ...(mark === null ? [] : [mark])]
        return changes.length > 0 ? changes.join(' ') : null
      },
      title: node => redacted.get(node.lineage)?.title ?? node.title,
      redacts: lineage => redacted.get(lineage)?.text ?? null,
    },
  })
  return { ...brought, grades, rubrics: rubricsInShell(base), rows, redacted }
}

/**
 * The keys of a plan's sources of which a run writes anything: in a place of their own, or in another's text. In place, all of the course is
 * what the run leaves.
 */
export const writtenFrom = (
  { inPlace }: Pick<PlanBase, 'inPlace'>,
  { rows, carried }: Pick<CarriedPlan, 'rows' | 'carried'>,
): ReadonlySet<string> =>
  inPlace
    ? carried
    : new Set(
        rows.flatMap(row => {
          const isJoined = row.happens === 'joins' && row.type === 'item'
          const own = row.source && (writesSource(row) || isJoined) ? [row.source.lineage] : []
          return [...own, ...((writesText(row) && row.text?.further) || [])]
        }),
      )
