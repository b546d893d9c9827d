import { computed, type Ref } from 'vue'
import { closureOf, needsIn } from '~~/core/carry/needs'
import type { PlaceRow } from '~~/core/carry/places/row'
import { choose } from '~~/core/carry/select'
import type { PlannedItem } from '~~/core/dates/plan'
import type { Finding } from '~~/core/checks/finding'
import type { PlanBase } from '~~/core/plan/base'
import type { Brought } from '~~/core/plan/bring'
import { carriedPlan, matchesOf, type CarriedPlan } from '~~/core/plan/carried'
import { linksLost, lostByPlan, planFindings } from '~~/core/plan/forecast'
import { uncategorisedIn } from '~~/core/plan/grades'
import type { PlanReply } from '~~/shared/api/plans'

interface Parts {
  base: Readonly<Ref<PlanBase | null>>
  brought: Readonly<Ref<Brought | null>>
  links: Readonly<Ref<PlanReply['links'] | null>>
  /** Where dates land, once they are computed. */
  planned: Readonly<Ref<ReadonlyMap<string, PlannedItem>>>
}
/**
 * Where everything of the sources goes in the shell, as it is decided now. What meets what rests on the two outlines and on pairs made by hand
 * alone, so that choosing an item costs only the rows.
 */
export function usePlannedPlaces({ base, brought, links, planned }: Parts) {
  const merged = computed(() => brought.value?.merged ?? null)
  const stays = computed((): Brought['stays'] => brought.value?.stays ?? new Map())
  const carried = computed((): Brought['carried'] => brought.value?.carried ?? new Set())
  const pairs = computed(() => base.value?.document.places.pairs)
  const target = computed(() => base.value?.target)
  const before = computed(() => base.value?.before)
  const matches = computed(() =>
    pairs.value && target.value && before.value && merged.value
      ? matchesOf({ target: target.value, before: before.value }, merged.value, pairs.value)
      : null,
  )
  const carrying = computed((): CarriedPlan | null =>
    base.value && brought.value && matches.value
      ? carriedPlan(base.value, brought.value, {
          matches: matches.value,
          dates: planned.value.size > 0 ? planned.value : null,
        })
      : null,
  )
  const rows = computed((): readonly PlaceRow[] => carrying.value?.rows ?? [])
  const uncategorised = computed(() =>
    base.value && carrying.value ? uncategorisedIn(base.value, carrying.value, carrying.value.grades) : [],
  )

  const needs = computed(() => (merged.value && links.value ? needsIn(merged.value.nodes, links.value) : []))
  const known = computed(() => new Set(merged.value?.nodes.map(node => node.lineage)))
  /** What stands for a thing in the shell already. */
  const standsThere = computed(
    () =>
      new Set(rows.value.flatMap(row => (row.shell && row.lineage && row.source ? row.source.lineage : []))),
  )
  /** What breaks by what stays behind. */
  const lost = computed((): readonly Finding[] =>
    carrying.value ? lostByPlan(carrying.value, needs.value) : [],
  )
  /** Links that lead nowhere once it is run. */
  const lostLinks = computed(() =>
    carrying.value ? linksLost(carrying.value, needs.value) : { links: 0, things: 0 },
  )
  /** What is to be looked at in what the plan will write, beside its dates. */
  const findings = computed((): readonly Finding[] =>
    base.value && carrying.value ? planFindings(base.value, carrying.value, planned.value, needs.value) : [],
  )
  /** The plan's choice with some things taken, and all that they need; or left. `brought`: what comes along with them. */
  function chosenWith(lineages: readonly string[], carries: boolean) {
    const nodes = merged.value?.nodes ?? []
    const before = base.value?.document.carry ?? { leave: [], take: [] }
    const isThing = (lineage: string): boolean => known.value.has(lineage) && !standsThere.value.has(lineage)
    const all = carries ? [...closureOf(lineages, needs.value, isThing), ...lineages] : [...lineages]
    const brought = all.filter(lineage => !lineages.includes(lineage) && !carried.value.has(lineage))
    return { ...choose(nodes, stays.value, before, [...lineages, ...brought], carries), brought }
  }
  return {
    merged,
    stays,
    carrying,
    rows,
    carried,
    needs,
    lost,
    lostLinks,
    findings,
    uncategorised,
    chosenWith,
  }
}
