import { computed, type Ref, type ShallowRef } from 'vue'
import { addedText } from '~~/core/carry/added'
import { brokenBy, closureOf, needsIn } from '~~/core/carry/needs'
import type { PlaceRow } from '~~/core/carry/places'
import { choose, type StaysWhy } from '~~/core/carry/select'
import type { PlannedItem } from '~~/core/dates/plan'
import {
  carriedPlan,
  matchesOf,
  sourceOutline,
  staysOf,
  uncategorisedIn,
  type CarryBase,
  type CarriedPlan,
} from '~~/core/plan/compile'
import type { Trace, UnseenFile } from '~~/core/student-data/traces/trace'
import type { PlanDocument } from '~~/core/plan/document'
import type { PlanReply } from '~~/shared/api/plans'

interface Parts {
  plan: ShallowRef<PlanReply | null>
  document: Readonly<Ref<PlanDocument | null>>
  planned: Readonly<Ref<ReadonlyMap<string, PlannedItem>>>
  /** Traces of students that were found in what the plan brings. */
  traces: Ref<readonly Trace[]>
  unseen: Ref<readonly UnseenFile[]>
}
/**
 * Where everything of the sources goes in the shell, as it is decided now. What meets what rests on the two outlines and on pairs made by hand
 * alone, so that choosing an item costs only the rows.
 */
export function usePlannedPlaces({ plan, document, planned, traces, unseen }: Parts) {
  // A plan that was saved is another plan with the same courses: nothing of them is computed anew for that.
  const source = computed(() => plan.value?.source ?? null)
  const more = computed(() => plan.value?.more ?? null)
  const target = computed(() => plan.value?.target ?? null)
  const before = computed(() => plan.value?.before ?? null)
  const links = computed(() => plan.value?.links ?? null)
  const inPlace = computed(() => plan.value?.mode === 'in-place')
  const foundCourses = computed(() => plan.value?.found ?? null)
  const found = computed(() => foundCourses.value?.map(side => ({ ...side, id: side.course.id })) ?? null)
  // As long as the plan adds nothing else of its own, the outline stays the same.
  const adds = computed<{ text: string; document: PlanDocument } | null>(before => {
    if (!document.value) return null
    const text = addedText(document.value)
    return before?.text === text ? before : { text, document: document.value }
  })
  const merged = computed(() =>
    adds.value && source.value && more.value && found.value
      ? sourceOutline({
          document: adds.value.document,
          source: source.value,
          more: more.value,
          found: found.value,
        })
      : null,
  )
  const base = computed((): CarryBase | null =>
    document.value && source.value && more.value && found.value && target.value && before.value
      ? {
          document: document.value,
          source: source.value,
          more: more.value,
          found: found.value,
          target: target.value,
          before: before.value,
          traces: traces.value,
          unseen: unseen.value,
          inPlace: inPlace.value,
        }
      : null,
  )
  const pairs = computed(() => document.value?.places.pairs)
  const matches = computed(() =>
    pairs.value && target.value && before.value && merged.value
      ? matchesOf({ target: target.value, before: before.value }, merged.value, pairs.value)
      : null,
  )
  const stays = computed((): ReadonlyMap<string, StaysWhy> =>
    base.value && merged.value ? staysOf(base.value, merged.value) : new Map(),
  )
  const carrying = computed((): CarriedPlan | null =>
    base.value && merged.value && matches.value
      ? carriedPlan(base.value, {
          merged: merged.value,
          matches: matches.value,
          dates: planned.value.size > 0 ? planned.value : null,
        })
      : null,
  )
  const rows = computed((): readonly PlaceRow[] => carrying.value?.rows ?? [])
  const carried = computed((): ReadonlySet<string> => carrying.value?.carried ?? new Set())
  const uncategorised = computed(() =>
    base.value && carrying.value ? uncategorisedIn(base.value, carrying.value) : [],
  )

  const needs = computed(() => (merged.value && links.value ? needsIn(merged.value.nodes, links.value) : []))
  const known = computed(() => new Set(merged.value?.nodes.map(node => node.lineage)))
  /** What stands for a thing in the shell already. */
  const standsThere = computed(
    () =>
      new Set(rows.value.flatMap(row => (row.shell && row.lineage && row.source ? row.source.lineage : []))),
  )
  const broken = computed(() =>
    brokenBy(
      carried.value,
      needs.value,
      lineage => !known.value.has(lineage) || standsThere.value.has(lineage),
    ),
  )
  /** The plan's choice with some things taken, and all that they need; or left. `brought`: what comes along with them. */
  function chosenWith(lineages: readonly string[], carries: boolean) {
    const nodes = merged.value?.nodes ?? []
    const before = document.value?.carry ?? { leave: [], take: [] }
    const isThing = (lineage: string): boolean => known.value.has(lineage) && !standsThere.value.has(lineage)
    const all = carries ? [...closureOf(lineages, needs.value, isThing), ...lineages] : [...lineages]
    const brought = all.filter(lineage => !lineages.includes(lineage) && !carried.value.has(lineage))
    return { ...choose(nodes, stays.value, before, [...lineages, ...brought], carries), brought }
  }
  return { merged, base, stays, carrying, rows, carried, needs, broken, uncategorised, chosenWith }
}
