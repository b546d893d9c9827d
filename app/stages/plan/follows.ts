import { computed, type Ref, type ShallowRef } from 'vue'
import { summarise } from '~~/core/dates/plan'
import { fileItems, type Filed } from '~~/core/grading/periods'
import type { PlanBase } from '~~/core/plan/base'
import type { Brought } from '~~/core/plan/bring'
import { writtenFrom } from '~~/core/plan/carried'
import type { PlanDocument } from '~~/core/plan/document'
import { datesOfRow } from '~~/core/plan/placements'
import { nothingToSettle, toSettle as settleCounts } from '~~/core/plan/to-settle'
import type { PlanReply } from '~~/shared/api/plans'
import { useAfterPaint } from '~/composables/after-paint'
import { usePlannedPlaces } from './places'
import type { usePlannedDates } from './planned-dates'
import { useComingTraces, type useTraces } from './traces'

const isShallowAlike = (a: object, b: object): boolean =>
  Object.entries(a).every(([name, value]) => value === (b as Record<string, unknown>)[name])

interface Parts {
  plan: ShallowRef<PlanReply | null>
  document: ShallowRef<PlanDocument | null>
  base: Readonly<Ref<PlanBase | null>>
  brought: Readonly<Ref<Brought | null>>
  dates: ReturnType<typeof usePlannedDates>
  traces: ReturnType<typeof useTraces>
}
/** What follows from a plan as it is decided now: where everything goes, which dates are written, and what is still to settle. */
export function usePlanFollows({ plan, document, base, brought, dates, traces }: Parts) {
  // Of places, only what the shell has from before rests on dates: who changes a rule sees the ledger of dates first.
  const late = useAfterPaint(
    () => ({ plan: plan.value?.id, dates: document.value?.dates, planned: dates.planned.value }),
    () => dates.planned.value,
  )
  const latePlanned = computed(() => late.value.planned)
  const placed = computed<PlanBase | null>(before => {
    const { value: now } = base
    if (!now) return null
    const seen = late.value.plan === plan.value?.id ? late.value.dates : null
    const next = { ...now, document: { ...now.document, dates: seen ?? now.document.dates } }
    const isAlike =
      before &&
      isShallowAlike({ ...before, document: null }, { ...next, document: null }) &&
      isShallowAlike(before.document, next.document)
    return isAlike ? before : next
  })
  const links = computed(() => plan.value?.links ?? null)
  const places = usePlannedPlaces({ base: placed, brought, links, planned: latePlanned })
  const written = computed((): ReadonlySet<string> =>
    base.value && places.carrying.value ? writtenFrom(base.value, places.carrying.value) : new Set(),
  )
  const comingTraces = useComingTraces({
    found: traces.found,
    unseen: traces.unseen,
    written,
    rows: places.rows,
    document,
  })
  const nodes = computed(() => brought.value?.merged.nodes ?? [])
  const periods = computed(() => dates.terms.value?.target.gradingPeriods ?? [])
  // Not of the document: another rule changes nothing here until its dates are there.
  const periodsChosen = computed(() => document.value?.dates.periods)
  /** The grading period of each item that counts, by lineage; none where the new term has none. */
  const filed = computed((): ReadonlyMap<string, Filed> => {
    const planned = dates.planned.value
    if (periods.value.length === 0) return new Map()
    const there = nodes.value.filter(node => planned.has(node.lineage))
    return fileItems({
      nodes: there,
      dates: planned,
      periods: periods.value,
      chosen: periodsChosen.value ?? {},
    })
  })
  /** The dates that a run would write: what the shell has from before keeps its own. */
  const datesToWrite = computed(() =>
    places.rows.value.flatMap(row => datesOfRow(row, dates.planned.value) ?? []),
  )
  const dated = computed(() => new Set(datesToWrite.value.map(({ id }) => id)))
  const summary = computed(() => (dates.ledger.value ? summarise(datesToWrite.value) : null))
  const counts = computed(() => {
    const items = nodes.value.filter(node => node.type === 'item')
    const coming = items.filter(node => places.carried.value.has(node.lineage))
    const there = new Set(['there', 'again'])
    const already = places.rows.value.filter(row => row.type === 'item' && there.has(row.happens)).length
    return { items: items.length, carried: coming.length, already }
  })
  const toSettle = computed(() =>
    base.value && places.carrying.value
      ? settleCounts({
          document: base.value.document,
          rows: places.rows.value,
          grades: places.carrying.value.grades,
          uncategorised: places.uncategorised.value,
          traces: comingTraces.coming.value,
          unseen: comingTraces.comingUnseen.value,
          byHand: base.value.byHand,
          dates: datesToWrite.value,
          periods: datesToWrite.value.flatMap(({ id }) => filed.value.get(id) ?? []),
        })
      : nothingToSettle,
  )

  return { places, comingTraces, nodes, filed, dated, summary, counts, toSettle }
}
