import { describe, expect, it } from 'vitest'
import { dayOf, isoOf, type WallTime } from '../../calendar/day'
import type { Meeting } from '../../calendar/schema'
import { springTerm } from '../../../tests/support/worked-case'
import { meetingDays } from '../../calendar/term'
import { notesOf, type StandingItem } from './index'

const term = springTerm()
const meetings: Meeting[] = [{ weekday: 2, start: '13:00', end: '14:15' }]
const item = (dates: Partial<Record<'opens' | 'due' | 'closes', string>>, id = 'i'): StandingItem => ({
  id,
  kind: 'assignment',
  opens: (dates.opens ?? null) as WallTime | null,
  due: (dates.due ?? null) as WallTime | null,
  closes: (dates.closes ?? null) as WallTime | null,
})
const open = { from: null, to: null }
const codes = (one: StandingItem, window: { from: number | null; to: number | null } = open) =>
  (notesOf([one], { term, meetings, window }).get(one.id) ?? []).map(({ code, field }) => `${code} ${field}`)

describe('notes on dates that stand', () => {
  it('say what a date on 30 June and a closing in January are', () => {
    // Classes end on 9 April and exams on 21 April.
    expect(codes(item({ due: '2027-06-30T23:59', closes: '2027-01-15T23:59' }))).toEqual([
      'outside-term due',
      'out-of-order closes',
    ])
    const [note] = notesOf([item({ due: '2027-06-30T23:59' })], { term, meetings, window: open }).get('i')!
    expect(note?.message).toBe('It is due Wed 30 Jun 23:59, 82 days after classes end.')
  })
  it('let fourteen days on either side pass', () => {
    const [from, to] = [term.classes.from, (term.exams ?? term.classes).to]
    const due = (day: number) => codes(item({ due: `${isoOf(day)}T23:59` }))
    expect([due(from - 14), due(to + 14)]).toEqual([[], []])
    expect([due(from - 15), due(to + 15)]).toEqual([['outside-term due'], ['outside-term due']])
  })
  it('name a closure for what is due or closes there, and not for what opens', () => {
    const closure = term.closures[0]!
    const day = `${isoOf(closure.from)}T08:00`
    expect(codes(item({ due: day }))).toEqual(['in-closure due'])
    expect(codes(item({ opens: day }))).toEqual([])
  })
  it('hold opening, due date and closing to their order, without a due date too', () => {
    expect(codes(item({ opens: '2027-02-03T08:00', due: '2027-02-02T08:00' }))).toEqual(['out-of-order due'])
    expect(codes(item({ opens: '2027-02-03T08:00', closes: '2027-02-02T08:00' }))).toEqual([
      'out-of-order closes',
    ])
    expect(codes(item({ opens: '2027-02-02T08:00', due: '2027-02-02T08:00' }))).toEqual([])
  })
  it('look at the days on which students may enter', () => {
    const window = { from: dayOf('2027-01-11'), to: dayOf('2027-03-01') }
    expect(codes(item({ opens: '2027-01-08T08:00', due: '2027-03-02T08:00' }), window)).toEqual([
      'outside-windows due',
    ])
    expect(codes(item({ due: '2027-01-08T08:00' }), window)).toEqual(['outside-windows due'])
  })
  it('call a day without a meeting odd only where the others of its kind keep to meetings', () => {
    const days = meetingDays(term, meetings).slice(0, 5)
    const others = days.map((day, at) => item({ due: `${isoOf(day)}T13:00` }, `o${at}`))
    const odd = item({ due: `${isoOf(days[0]! + 1)}T13:00` })
    const context = { term, meetings, window: open }
    expect(
      notesOf([...others, odd], context)
        .get('i')
        ?.map(note => note.code),
    ).toEqual(['off-meeting'])
    expect(notesOf([odd, others[0]!], context).size).toBe(0)
  })
})
