import { describe, expect, it } from 'vitest'
import { dayOf } from '../../core/calendar/day'
import { holdsYears } from '../../core/calendar/zone'
import { planCase, readCase } from '../../core/dates/case'
import { ruleSchema } from '../../core/dates/rule'
import { planBase, planSide } from '../../core/plan/base'
import { bring } from '../../core/plan/bring'
import { compileInputOf, planLedger, zoneYearsOf } from '../../core/plan/ledger'
import { present } from '../../core/present'
import { isTimeZone, zoneRules } from '../../server/calendars/zones'
import { effectOf } from '../../server/runs/effect'
import { readPlan, savePlan } from '../../server/plans/plans'
import { startPlan } from '../../server/plans/start'
import { runPlan } from '../../server/runs/runs'
import { useDemo } from '../support/demo'

// From 2007 on the clocks of Halifax skip 02:00 to 03:00 on the second Sunday of March (IANA tz, zone America/Halifax).
const skippedDay = '2033-03-13'
const skippedTime = '02:30'
const movedOn = `${skippedDay}T03:30`

/** What the page computes, given the zone data that came with the plan; where these do not reach, it asks for further years. */
function pageLedger(plan: Awaited<ReturnType<typeof readPlan>>, document: typeof plan.document) {
  const base = planBase({
    document,
    mode: 'roll',
    sources: [plan.source, ...plan.more].map(planSide),
    found: [],
    target: planSide(plan.target),
    before: plan.before,
    searched: null,
    byHand: plan.byHand,
  })
  const isEnough = holdsYears(plan.zone.years, zoneYearsOf(base, bring(base)))
  return { isEnough, items: planLedger(compileInputOf(base, zoneRules)).items }
}

describe('a date in an hour that the clock skips, years after classes', () => {
  const demo = useDemo('far_dates')

  it('is moved out of it alike by the command, by the page, and by the run', async () => {
    const plan = await startPlan(demo.db, demo.people.marchetti, {
      sources: [demo.courses.old],
      target: demo.courses.empty,
    })
    const before = await readPlan(demo.db, demo.people.marchetti, plan)
    // After the last class, since Bounds would bring any other date back into the term.
    const classesTo = before.source.calendar.classes.to
    const item = present(
      before.source.nodes.find(node => node.due !== null && node.due.slice(0, 10) > classesTo),
    )
    const days = dayOf(skippedDay) - dayOf(present(item.due))
    const rule = ruleSchema.parse({ method: 'offset', days, times: { due: skippedTime } })
    const itemRules = { [item.lineage]: rule }

    const asked = { ...before.document, dates: { ...before.document.dates, itemRules } }
    const page = pageLedger(before, asked)
    expect(page.isEnough).toBe(false)
    expect(page.items.find(each => each.id === item.lineage)).toMatchObject({
      due: movedOn,
      flags: ['dst-gap'],
    })

    await savePlan(demo.db, demo.people.marchetti, plan, before.revision, { document: asked })
    const { fingerprint } = await effectOf(demo.db, plan)
    await runPlan(demo.db, demo.people.marchetti, plan, fingerprint)
    const written = await demo.db('items').where({ course_id: demo.courses.empty, lineage: item.lineage })
    expect(written.map(row => row.due)).toEqual([movedOn])

    const given = {
      source: before.source.calendar,
      target: before.target.calendar,
      itemRules,
      items: [{ id: item.lineage, title: item.title, kind: item.kind, due: item.due }],
    }
    const read = readCase(given, isTimeZone)
    if ('faults' in read) throw new Error(JSON.stringify(read.faults))
    expect(planCase(read.case, zoneRules).items.map(each => each.due)).toEqual([movedOn])
  })
})
