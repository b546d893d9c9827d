import { flushPromises } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, shallowRef } from 'vue'
import { ruleBy, ruleSchema } from '~~/core/dates/rule'
import { recommendedPlan, type PlanDocument } from '~~/core/plan/document'
import type { PlanReply } from '~~/shared/api/plans'
import { item } from '~~/tests/support/outline'
import { wall } from '~~/tests/support/wall'
import { somePlan } from '~/testing/plan'
import { usePlanBase } from './base'
import { usePlannedDates } from './planned-dates'

const quiz = (due: string) => item('q', { kind: 'quiz', due: wall(due), points: 100_000 })
const withRule = (itemRules: PlanDocument['dates']['itemRules']): PlanDocument => ({
  ...recommendedPlan(),
  dates: { ...recommendedPlan().dates, itemRules },
})
function planned(years: { from: number; to: number }, due = '2026-09-11T23:59') {
  const given = somePlan({ nodes: [quiz(due)] })
  const plan = shallowRef<PlanReply | null>({ ...given, zone: { ...given.zone, years } })
  const document = shallowRef<PlanDocument | null>(given.document)
  const none = shallowRef([])
  const dates = effectScope().run(() => {
    const { base, brought } = usePlanBase({ plan, document, traces: none, unseen: none })
    return usePlannedDates({ plan, base, brought })
  })!
  return { dates, plan, document }
}

afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})
describe('the dates of a plan on its page', () => {
  it('are there at once, and other ways are compared once one rests', () => {
    vi.useFakeTimers()
    const { dates, document } = planned({ from: 2020, to: 2040 })
    expect(dates.planned.value.get('q')).toMatchObject({ due: '2027-01-15T23:59' })
    document.value = withRule({ q: ruleBy('set', { due: '2027-03-01T12:00' }) })
    expect(dates.planned.value.get('q')).toMatchObject({ due: '2027-03-01T12:00', flags: ['set-by-hand'] })
    expect(dates.comparison.value).toBeNull()
    vi.advanceTimersByTime(200)
    expect(dates.comparison.value?.told['keep-week']).toEqual({ settles: 0, moves: 0 })
  })
  it('stay as they were until the zone is known as far as a rule reaches, and are none once the plan is closed', async () => {
    const asked: string[] = []
    vi.stubGlobal('fetch', (path: string) => {
      asked.push(path)
      const zone = { timeZone: 'UTC', years: { from: 2020, to: 2060 }, offset: 0, transitions: [] }
      return Promise.resolve(
        new Response(JSON.stringify(zone), { headers: { 'content-type': 'application/json' } }),
      )
    })
    const { dates, plan, document } = planned({ from: 2026, to: 2028 }, '2026-12-10T23:59')
    const before = dates.planned.value.get('q')?.due
    expect(before).toMatch(/^2027-/)
    // After the last class, since Bounds would bring any other date back into the term.
    document.value = withRule({ q: ruleSchema.parse({ method: 'offset', days: 6300 }) })
    expect(dates.planned.value.get('q')?.due).toBe(before)
    await nextTick()
    await flushPromises()
    expect(asked).toHaveLength(1)
    expect(asked[0]).toMatch(/\/zones\?zone=UTC&from=20\d\d&to=20\d\d$/)
    expect(dates.planned.value.get('q')?.due).toBe('2044-03-10T23:59')
    plan.value = null
    expect(dates.ledger.value).toBeNull()
  })
})
