import { describe, expect, it } from 'vitest'
import { termCalendar } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import { dayOf, wallOf } from '../calendar/day'
import { inCourseOrder, type OutlineNode } from '../course/outline'
import { ruleBy, type Rule } from '../dates/rule'
import * as outline from '../../tests/support/outline'
import { around } from '../../tests/support/outline'
import { zoneRules } from '../../server/calendars/zones'
import { planBase } from './base'
import { betterWay } from './better'
import { recommendedPlan } from './document'
import { compileInputOf } from './ledger'

const term = (from: string, to: string) =>
  compileTerm(termCalendar.parse({ timeZone: 'UTC', classes: { from, to } }))
const windows = { enrolFrom: null, enrolTo: null, openFrom: null, openTo: null }
/** Work due on each Thursday of so many weeks, so many of each. */
function work(weeks: number, each: number): OutlineNode[] {
  const first = dayOf('2026-09-10')
  return inCourseOrder(
    Array.from({ length: weeks * each }, (_, at) =>
      outline.item(`i${at}`, {
        position: at,
        parent: null,
        due: wallOf(first + 7 * Math.floor(at / each), 12 * 60),
      }),
    ),
  )
}
const weeksLater = (from: string, weeks: number): string => {
  const day = wallOf(dayOf(from) + 7 * weeks - 3, 0)
  return day.slice(0, 10)
}
/** A plan of `from` weeks of classes into `into` weeks. */
function better(from: number, into: number, { each = 2, rule }: { each?: number; rule?: Rule } = {}) {
  const document = recommendedPlan()
  const side = { meetings: [], windows, ...around }
  return betterWay(
    compileInputOf(
      planBase({
        mode: 'roll',
        before: { bases: [], deleted: [] },
        searched: null,
        byHand: [],
        found: [],
        document: rule ? { ...document, dates: { ...document.dates, rule } } : document,
        sources: [
          { ...side, term: term('2026-09-07', weeksLater('2026-09-07', from)), nodes: work(from, each) },
        ],
        target: { ...side, term: term('2027-01-04', weeksLater('2027-01-04', into)), nodes: [] },
      }),
      zoneRules,
    ),
  )
}

describe('the better way to move the dates of a plan', () => {
  it('sixteen weeks into seven: stretched, hardly a date is to settle', () => {
    expect(better(16, 7)).toMatchObject({
      method: 'stretch',
      settles: 0,
      instead: { method: 'keep-week', settles: 18 },
    })
  })
  it('of terms of one length what people expect stays', () => {
    expect(better(13, 13)).toBeNull()
    expect(better(7, 16)).toBeNull()
  })
  it('stays, too, where fewer than ten dates fewer would be left', () => {
    // Of three weeks past the end nine dates are left, then twelve.
    expect(better(13, 10, { each: 3 })).toBeNull()
    expect(better(13, 10, { each: 4 })).toMatchObject({ instead: { settles: 12 } })
  })
  it('is none where dates are left alone, or taken away, on purpose', () => {
    expect(better(16, 7, { rule: ruleBy('unchanged') })).toBeNull()
    expect(better(16, 7, { rule: ruleBy('none') })).toBeNull()
    expect(better(16, 7, { rule: ruleBy('stretch', { basis: 'teaching' }) })).toBeNull()
  })
})
