import { describe, expect, it } from 'vitest'
import { termCalendar } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import { inCourseOrder } from '../course/outline'
import { ledgerOf } from '../../tests/support/carry-world'
import { item, unit } from '../../tests/support/outline'
import { wall } from '../../tests/support/wall'
import { byTeachingWeek } from './regroup'

describe('regrouping by teaching week', () => {
  const term = compileTerm(
    termCalendar.parse({
      timeZone: 'UTC',
      classes: { from: '2027-01-04', to: '2027-04-09' },
      closures: [{ from: '2027-01-18', to: '2027-01-22', name: 'Recess', kind: 'break' }],
    }),
  )
  const nodes = inCourseOrder([
    unit('w1', { title: 'Week 1' }),
    unit('w3', { position: 1, title: '3 Currents' }),
    item('first', { parent: 'w1', due: wall('2027-01-06T23:59') }),
    item('third', { parent: 'w1', position: 1, due: wall('2027-01-27T23:59') }),
    item('nested', { parent: 'third', due: wall('2027-01-27T23:59') }),
    item('recess', { parent: 'w1', position: 2, due: wall('2027-01-20T23:59') }),
    item('opens', { parent: 'w1', position: 3, opens: wall('2027-01-25T08:00') }),
    item('undated', { parent: 'w1', position: 4 }),
  ])
  it('moves what is due, or else opens, in the week of another unit; nothing of a recess, nothing nested', () => {
    const rows = ledgerOf({ shell: [], bases: [] }, nodes)
    const dates = new Map(nodes.map(node => [node.lineage, node]))
    expect(byTeachingWeek(rows, dates, term)).toEqual({ third: 'w3', opens: 'w3' })
  })
  it('moves into a unit of the shell by its own key, and nothing that does not come', () => {
    const shell = inCourseOrder([unit('s3', { title: 'Week 3', madeBy: 'person' })])
    const rows = ledgerOf(
      { shell, bases: [] },
      nodes.filter(node => node.lineage !== 'w3'),
      {
        chosen: { leave: ['opens'], take: [] },
      },
    )
    const dates = new Map(nodes.map(node => [node.lineage, node]))
    expect(byTeachingWeek(rows, dates, term)).toEqual({ third: 's3' })
  })
})
