import { watchDebounced } from '@vueuse/core'
import { computed, shallowRef, watch, type Ref, type ShallowRef } from 'vue'
import { termOver } from '~~/core/calendar/term'
import { holdsYears, type ZoneRules } from '~~/core/calendar/zone'
import type { Finding } from '~~/core/checks/finding'
import type { PlannedItem, Summary } from '~~/core/dates/plan'
import { wholeCourse, type RuleScope } from '~~/core/dates/levels'
import type { MethodName } from '~~/core/dates/rule'
import type { PlanBase } from '~~/core/plan/base'
import type { Brought } from '~~/core/plan/bring'
import { comparePlan, withMethod, type Comparison } from '~~/core/plan/compare'
import { planLedger, zoneYearsOf, type CompileInput } from '~~/core/plan/ledger'
import { dateFindings } from '~~/core/plan/forecast'
import type { PlanReply } from '~~/shared/api/plans'
import { api } from '~/composables/api'

/** Where every date lands. */
export interface Ledger {
  readonly items: readonly PlannedItem[]
  readonly summary: Summary
  /** What is to be looked at, by item. */
  readonly findings: ReadonlyMap<string, readonly Finding[]>
}
/** Where another method would put everything, with what it would leave to settle. */
export interface LaidOver {
  readonly method: MethodName
  readonly summary: Summary
  readonly planned: ReadonlyMap<string, PlannedItem>
}
interface Parts {
  plan: ShallowRef<PlanReply | null>
  base: Readonly<Ref<PlanBase | null>>
  brought: Readonly<Ref<Brought | null>>
}
const byId = (items: readonly PlannedItem[]): ReadonlyMap<string, PlannedItem> =>
  new Map(items.map(item => [item.id, item]))
/** Milliseconds of rest before the ways are compared: who changes rule after rule does not wait for it each time. */
const restBeforeComparing = 150

/** Where every date of a plan lands, and what other methods would leave to do. */
export function usePlannedDates({ plan, base, brought }: Parts) {
  const zone = useZone(plan, base, brought)
  const input = computed((): CompileInput | null =>
    base.value && brought.value && zone.value
      ? { ...base.value, brought: brought.value, zone: zone.value }
      : null,
  )
  const ledger = computed<Ledger | null>(last => {
    if (!input.value) return base.value ? (last ?? null) : null
    const { items, summary } = planLedger(input.value)
    return { items, summary, findings: dateFindings(input.value, input.value.brought.merged, items) }
  })
  const planned = computed(() => byId(ledger.value?.items ?? []))
  /** For what the rule stands that is being chosen: what the methods are compared for. */
  const scope = shallowRef<RuleScope>(wholeCourse)
  const comparison = shallowRef<Comparison | null>(null)
  watchDebounced(
    [input, scope],
    () => {
      comparison.value = input.value && comparePlan(input.value, scope.value)
    },
    { debounce: restBeforeComparing, immediate: true },
  )
  /** The method that is laid over what is chosen, to look at before one decides; null: none. */
  const over = shallowRef<MethodName | null>(null)
  const laidOver = computed((): LaidOver | null => {
    const other = input.value && over.value && withMethod(input.value, scope.value, over.value)
    if (!other || !over.value) return null
    const { items, summary } = planLedger(other)
    return { method: over.value, summary, planned: byId(items) }
  })
  const span = computed(() => base.value?.document.dates.sourceSpan ?? null)
  const sourceTerm = computed(() => base.value?.source.term)
  const targetTerm = computed(() => base.value?.target.term)
  const terms = computed(() =>
    sourceTerm.value && targetTerm.value
      ? {
          source: span.value ? termOver(sourceTerm.value, span.value) : sourceTerm.value,
          target: targetTerm.value,
        }
      : null,
  )
  return { scope, over, laidOver, terms, input, ledger, comparison, planned }
}

/** What the target's zone does in the years that the plan's dates reach; null where a rule reaches further and that is not here yet. */
function useZone(
  plan: Parts['plan'],
  base: Parts['base'],
  brought: Parts['brought'],
): Readonly<Ref<ZoneRules | null>> {
  const further = shallowRef<ZoneRules | null>(null)
  const came = computed(() => plan.value?.zone ?? null)
  watch(came, () => {
    further.value = null
  })
  const known = computed(() => further.value ?? came.value)
  const years = computed(() => (base.value && brought.value ? zoneYearsOf(base.value, brought.value) : null))
  const isEnough = computed(() =>
    Boolean(known.value && years.value && holdsYears(known.value.years, years.value)),
  )
  const asked = computed(() =>
    known.value && years.value && !isEnough.value
      ? `/zones?zone=${encodeURIComponent(known.value.timeZone)}&from=${years.value.from}&to=${years.value.to}`
      : null,
  )
  watch(
    asked,
    async path => {
      if (path === null) return
      try {
        const zone = await api.get<ZoneRules>(path)
        if (asked.value === path) further.value = zone
      } catch {
        // Without it nothing can be said of these dates; what was shown stays, and the next change asks again.
      }
    },
    { immediate: true },
  )
  return computed(() => (isEnough.value ? known.value : null))
}
