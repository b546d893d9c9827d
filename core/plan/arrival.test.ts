import { describe, expect, it } from 'vitest'
import { item, unit } from '../../tests/support/outline'
import { wall } from '../../tests/support/wall'
import { ruleBy } from '../dates/rule'
import { arrivalState } from './arrival'
import { recommendedPlan, type PlanDocument } from './document'

const plain = recommendedPlan()
const withDates = (dates: Partial<PlanDocument['dates']>): PlanDocument => ({
  ...plain,
  dates: { ...plain.dates, ...dates },
})
const opening = item('a', { opens: wall('2026-09-08T08:00'), kind: 'announcement', state: 'visible' })

describe('how an item arrives', () => {
  it('hidden where the date on which it opened is taken away: an announcement waits', () => {
    const noDates = withDates({ rule: ruleBy('none') })
    expect(arrivalState(opening, noDates)).toBe('hidden')
    expect(arrivalState({ ...opening, opens: null }, noDates)).toBe('visible')
    expect(arrivalState(opening, withDates({ kindRules: { quiz: ruleBy('none') } }))).toBe('visible')
    expect(arrivalState(opening, withDates({ kindRules: { announcement: ruleBy('none') } }))).toBe('hidden')
  })
  it('so does a unit, by its own rule or the course’s', () => {
    const week = unit('u1', { opens: wall('2026-09-08T08:00'), state: 'visible' })
    expect(arrivalState(week, withDates({ rule: ruleBy('none') }))).toBe('hidden')
    expect(arrivalState(week, withDates({ unitRules: { u1: ruleBy('none') } }))).toBe('hidden')
    expect(arrivalState(week, withDates({ unitRules: { u2: ruleBy('none') } }))).toBe('visible')
    expect(arrivalState({ ...week, opens: null }, withDates({ rule: ruleBy('none') }))).toBe('visible')
  })
  it('as somebody said of just this item, whatever its dates', () => {
    const noDates = withDates({ rule: ruleBy('none') })
    const said = { ...noDates, carry: { ...noDates.carry, states: { a: 'visible' as const } } }
    expect(arrivalState(opening, said)).toBe('visible')
  })
})
