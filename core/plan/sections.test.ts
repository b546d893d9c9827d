import { describe, expect, it } from 'vitest'
import type { PlannedItem } from '../dates/plan'
import { ruleBy } from '../dates/rule'
import { recommendedPlan } from './document'
import { looksAtMeetings, sectionDifferences, sectionFactsOf } from './sections'

const { dates } = recommendedPlan()
const planned = (id: string, due: string | null) =>
  ({ id, opens: null, due, closes: null }) as unknown as PlannedItem

describe('sections of one content', () => {
  it('get dates of their own only where a rule looks at meetings or class times', () => {
    expect(looksAtMeetings(dates)).toBe(false)
    expect(looksAtMeetings({ ...dates, kindRules: { quiz: ruleBy('meetings') } })).toBe(true)
    const rule = ruleBy('keep-week', { times: { due: 'class-start' } })
    expect(looksAtMeetings({ ...dates, itemRules: { a: rule } })).toBe(true)
  })
  it('differ date by date', () => {
    const shell = [planned('a', '2027-01-13T09:30'), planned('b', '2027-01-15T23:59'), planned('c', null)]
    const section = [planned('b', '2027-01-15T23:59'), planned('a', '2027-01-14T13:00')]
    expect(sectionDifferences(shell, section)).toEqual([
      { lineage: 'a', field: 'due', shell: '2027-01-13T09:30', section: '2027-01-14T13:00' },
    ])
  })
  it('have a label and windows of their own; what a plan does not name stays', () => {
    const windows = { enrolFrom: null, enrolTo: null, openFrom: '2027-01-04', openTo: null }
    const sections = { one: { label: 'Tue Thu', windows }, two: { label: '', windows: null } }
    const document = { ...recommendedPlan(), sections }
    expect(sectionFactsOf(document, 'one')).toEqual({ label: 'Tue Thu', ...windows })
    expect(sectionFactsOf(document, 'two')).toEqual({ label: null })
    expect(sectionFactsOf(document, 'three')).toEqual({})
  })
})
