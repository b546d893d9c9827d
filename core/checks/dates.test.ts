import { describe, expect, it } from 'vitest'
import { springTerm } from '../../tests/support/worked-case'
import { item as outlined } from '../../tests/support/outline'
import { dayOf, isoOf, type WallTime } from '../calendar/day'
import type { Meeting } from '../calendar/schema'
import { meetingDays } from '../calendar/term'
import type { OutlineNode } from '../course/outline'
import { calendarKnown, courseChecks, dateChecks } from './index'
import { checkCourse } from './check'

const term = springTerm()
const meetings: Meeting[] = [{ weekday: 2, start: '13:00', end: '14:15' }]
const item = (dates: Partial<Record<'opens' | 'due' | 'closes', string>>, id = 'i'): OutlineNode =>
  outlined(id, {
    kind: 'assignment',
    opens: (dates.opens ?? null) as WallTime | null,
    due: (dates.due ?? null) as WallTime | null,
    closes: (dates.closes ?? null) as WallTime | null,
  })
const open = { from: null, to: null }
const foundIn = (nodes: OutlineNode[], window: { from: number | null; to: number | null } = open) =>
  checkCourse(dateChecks, { nodes, calendar: calendarKnown(nodes, { term, meetings, window }) })
const codes = (one: OutlineNode, window?: { from: number | null; to: number | null }) =>
  foundIn([one], window).map(({ short, where }) => `${short}: ${where.field}`)

describe('notes on dates that stand', () => {
  it('say what a date on 30 June and a closing in January are', () => {
    // Classes end on 9 April and exams on 21 April.
    expect(codes(item({ due: '2027-06-30T23:59', closes: '2027-01-15T23:59' }))).toEqual([
      'outside the term: due',
      'out of order: closes',
    ])
    expect(foundIn([item({ due: '2027-06-30T23:59' })])).toEqual([
      {
        check: 'dates.no-term',
        short: 'outside the term',
        grave: 'look',
        where: { lineage: 'i', field: 'due' },
        sentence: 'It is due Wed 30 Jun 23:59, 82 days after classes end.',
        mends: 'Move it to the last class day, or let students enter longer',
      },
    ])
  })
  it('let fourteen days on either side pass', () => {
    const [from, to] = [term.classes.from, (term.exams ?? term.classes).to]
    const due = (day: number) => codes(item({ due: `${isoOf(day)}T23:59` }))
    expect([due(from - 14), due(to + 14)]).toEqual([[], []])
    expect([due(from - 15), due(to + 15)]).toEqual([['outside the term: due'], ['outside the term: due']])
  })
  it('name a closure for what is due or closes there, and not for what opens', () => {
    const closure = term.closures[0]!
    const day = `${isoOf(closure.from)}T08:00`
    expect(codes(item({ due: day }))).toEqual(['on a closure: due'])
    expect(codes(item({ opens: day }))).toEqual([])
  })
  it('ask which day is meant where something is due at midnight', () => {
    expect(foundIn([item({ due: '2027-02-03T00:00' })]).map(({ sentence }) => sentence)).toEqual([
      'It is due Wed 3 Feb at 00:00: students may think that it is due at the end of that day, not of Tue 2 Feb.',
    ])
    expect(codes(item({ opens: '2027-02-03T00:00', due: '2027-02-03T00:01' }))).toEqual([])
  })
  it('hold opening, due date and closing to their order, without a due date too', () => {
    expect(codes(item({ opens: '2027-02-03T08:00', due: '2027-02-02T08:00' }))).toEqual(['out of order: due'])
    expect(codes(item({ opens: '2027-02-03T08:00', closes: '2027-02-02T08:00' }))).toEqual([
      'out of order: closes',
    ])
    expect(codes(item({ opens: '2027-02-02T08:00', due: '2027-02-02T08:00' }))).toEqual([])
  })
  it('look at the days on which students may enter', () => {
    const window = { from: dayOf('2027-01-11'), to: dayOf('2027-03-01') }
    expect(codes(item({ opens: '2027-01-08T08:00', due: '2027-03-02T08:00' }), window)).toEqual([
      'students cannot enter: due',
    ])
    expect(codes(item({ due: '2027-01-08T08:00' }), window)).toEqual(['students cannot enter: due'])
  })
  it('call a day without a meeting odd only where the others of its kind keep to meetings', () => {
    const days = meetingDays(term, meetings).slice(0, 5)
    const others = days.map((day, at) => item({ due: `${isoOf(day)}T13:00` }, `o${at}`))
    const odd = item({ due: `${isoOf(days[0]! + 1)}T13:00` })
    expect(foundIn([...others, odd]).map(({ check, where }) => [check, where.lineage])).toEqual([
      ['dates.no-class', 'i'],
    ])
    expect(foundIn([odd, others[0]!])).toEqual([])
  })
})

describe('the load of a course', () => {
  const exam = (id: string, due: string): OutlineNode => ({ ...item({ due }, id), exam: true, title: id })
  const crowding = (limits: { perDay?: number | null; perWeek?: number | null; minGap?: number }) => ({
    perDay: null,
    perWeek: null,
    minGap: 0,
    weights: {},
    days: 'usable' as const,
    weekStart: term.weekStart,
    ...limits,
  })
  const told = (nodes: OutlineNode[], limits: Parameters<typeof crowding>[0]) =>
    checkCourse(courseChecks, { nodes, crowding: crowding(limits), held: new Set() }).map(
      ({ where, sentence }) => `${where.lineage}: ${sentence}`,
    )
  it('is told where a day or a week has more than the limits allow', () => {
    const day = '2027-02-02T23:59'
    const nodes = [item({ due: day }, 'a'), item({ due: day }, 'b'), item({ due: '2027-02-04T23:59' }, 'c')]
    expect(told(nodes, { perDay: 2, perWeek: 3 })).toEqual([])
    expect(told(nodes, { perDay: 1 })).toEqual(['a: 2 items are due on Tue 2 Feb; the limit is 1.'])
    expect(told(nodes, { perWeek: 2 })).toEqual(['a: 3 is due in the week from Mon 1 Feb; the limit is 2.'])
  })
  it('is told where two exams are nearer than the least, in whatever order they stand', () => {
    const nodes = [exam('final', '2027-02-05T09:00'), exam('first', '2027-02-03T09:00')]
    expect(told(nodes, { minGap: 2 })).toEqual([])
    expect(told(nodes, { minGap: 3 })).toEqual([
      'final: It is on Fri 5 Feb, 2 days after “first”. The least is 3 days.',
    ])
    const same = [exam('a', '2027-02-05T09:00'), exam('b', '2027-02-05T14:00')]
    expect(told(same, { minGap: 1 })).toEqual([
      'b: It is on Fri 5 Feb, the same day as “a”. The least is 1 day.',
    ])
    expect(told([{ ...nodes[0]!, state: 'deleted' }, nodes[1]!], { minGap: 9 })).toEqual([])
  })
})
