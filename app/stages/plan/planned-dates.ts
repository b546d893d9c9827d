import { computed, shallowRef, watch, type ShallowRef } from 'vue'
import { compileTerm, termOver } from '~~/core/calendar/term'
import { wholeCourse, type RuleScope } from '~~/core/dates/levels'
import type { PlanDocument } from '~~/core/plan/document'
import type { PlanReply } from '~~/shared/api/plans'
import type { MethodName } from '~~/core/dates/rule'
import type { Comparison, LaidOver, Ledger } from '~/workers/messages'
import { unpackItems } from '~/workers/packing'
import { datesClient } from './dates-client'

/** Where every date of a plan lands, and what other methods would leave to do; the last answer stays until the next is there. */
export function usePlannedDates(
  plan: ShallowRef<PlanReply | null>,
  document: ShallowRef<PlanDocument | null>,
) {
  const ledger = shallowRef<Ledger | null>(null)
  const comparison = shallowRef<Comparison | null>(null)
  const client = datesClient(answer => {
    if (answer.type === 'ledger')
      ledger.value = { summary: answer.summary, items: unpackItems(answer.items), notes: answer.notes }
    else if (answer.type === 'comparison') comparison.value = answer.comparison
    else if (answer.method === over.value) {
      const planned = new Map(unpackItems(answer.items).map(item => [item.id, item]))
      laidOver.value = { method: answer.method, summary: answer.summary, planned }
    }
  })
  /** For what the rule stands that is being chosen: what the methods are compared for. */
  const scope = shallowRef<RuleScope>(wholeCourse)
  /** The method that is laid over what is chosen, to look at before one decides; null: none. */
  const over = shallowRef<MethodName | null>(null)
  const laidOver = shallowRef<LaidOver | null>(null)
  watch(over, method => {
    if (method !== laidOver.value?.method) laidOver.value = null
  })
  watch([document, scope, over], ([next, at, method]) => {
    if (next) client.plan(next, at, method)
  })
  // The calendars stay the same objects while one plans, so the terms are made ready once.
  const sourceCalendar = computed(() => plan.value?.source.calendar)
  const targetCalendar = computed(() => plan.value?.target.calendar)
  const calendarTerms = computed(() =>
    sourceCalendar.value && targetCalendar.value
      ? { source: compileTerm(sourceCalendar.value), target: compileTerm(targetCalendar.value) }
      : null,
  )
  const span = computed(() => document.value?.dates.sourceSpan ?? null)
  const terms = computed(() => {
    const both = calendarTerms.value
    return both && span.value ? { ...both, source: termOver(both.source, span.value) } : both
  })
  const planned = computed(() => new Map(ledger.value?.items.map(item => [item.id, item]) ?? []))
  const forget = (): void => {
    ledger.value = null
  }
  /** The courses are others, or stand otherwise: everything is computed anew. */
  function pair(loaded: PlanReply): void {
    client.pair(loaded)
    client.plan(loaded.document, scope.value, over.value)
  }
  return { scope, over, laidOver, terms, ledger, comparison, planned, pair, forget }
}
