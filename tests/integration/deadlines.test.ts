import ICAL from 'ical.js'
import { expect, it } from 'vitest'
import { ruleBy } from '../../core/dates/rule'
import { courseDeadlines, planDeadlines } from '../../server/exchange/dates-out'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

// Read back with ical.js, a library that knows nothing of the one that writes.

const demo = useDemo('deadlines')
const { planned } = useRolls(demo, () => demo.people.marchetti)
const instants = (text: string): Map<string, string> =>
  new Map(
    new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent').map(each => {
      const event = new ICAL.Event(each)
      return [event.summary.replace(/^.*: /, ''), event.startDate.toJSDate().toISOString()]
    }),
  )
const titled = (title: string, change: object) =>
  demo.db('items').where({ course_id: demo.courses.old, title }).update(change)
const has = (all: Map<string, string>, title: string): string | undefined =>
  [...all].find(([name]) => name.includes(title))?.[1]

it('a date that is kept as it was is told by the clock of its year, however long ago', async () => {
  await titled('Lab sheet 1', { opens: null, due: '1972-07-14T23:59', closes: null })
  const { old, empty } = demo.courses
  const plan = await planned([old], empty, ({ dates }) => ({
    dates: { ...dates, rule: ruleBy('unchanged') },
  }))
  // Halifax was three hours behind UTC in the summer of 1972.
  expect(has(instants(await planDeadlines(demo.db, plan)), 'Lab sheet 1')).toBe('1972-07-15T02:59:00.000Z')
})
it('what is hidden, or stands in a hidden unit, is in no calendar; what is listed is', async () => {
  const { old } = demo.courses
  const names = async () => instants(await courseDeadlines(demo.db, old))
  expect(has(await names(), 'Lab sheet 2')).toBeDefined()
  await titled('Lab sheet 2', { state: 'hidden' })
  await titled('Lab sheet 3', { state: 'listed' })
  expect(has(await names(), 'Lab sheet 2')).toBeUndefined()
  expect(has(await names(), 'Lab sheet 3')).toBeDefined()
  await demo.db('units').where({ course_id: old }).update({ state: 'hidden' })
  expect((await names()).size).toBe(0)
})
