import { describe, expect, it } from 'vitest'
import { dayOf } from '../../calendar/day'
import { springTerm } from '../../../tests/support/worked-case'
import { dateText, echoOf, placeInTerm } from './echo'
import type { TypedContext } from './typed'
import { understand } from './understand'

const term = springTerm()
const context = (more: Partial<TypedContext> = {}): TypedContext => ({
  term,
  meetings: [],
  was: { day: dayOf('2027-03-23'), minute: 23 * 60 + 59 },
  usualMinute: 23 * 60 + 59,
  today: dayOf('2027-01-05'),
  ...more,
})
const echo = (text: string, more: Partial<TypedContext> = {}, others = 0) => {
  const all = context(more)
  return echoOf(understand(text, all), all, () => others)
}

describe('where in the term a day lies', () => {
  it.each([
    ['2027-01-03', ['3 days before classes begin']],
    ['2027-02-05', ['week 5']],
    ['2027-02-17', ['no classes: Study week']],
    ['2027-02-20', ['break after week 6']],
    ['2027-03-30', ['week 12', 'runs on a Monday timetable']],
    ['2027-04-11', ['2 days after classes end']],
    ['2027-04-12', ['exams']],
    ['2027-04-21', ['exams']],
    ['2027-04-24', ['3 days after exams end']],
  ])('%s', (day, expected) => {
    expect(placeInTerm(term, dayOf(day))).toEqual(expected)
  })
})

describe('a date as the field reads it back', () => {
  it('shows the year wherever that is not the term’s', () => {
    expect(dateText(dayOf('2027-02-05'), 23 * 60 + 59, context())).toBe('Fri 5 Feb 23:59')
    expect(dateText(dayOf('2026-12-31'), null, context())).toBe('Thu 31 Dec 2026')
    expect(dateText(dayOf('2028-01-01'), null, context())).toBe('Sat 1 Jan 2028')
  })
  it('shows the year wherever that is not today’s, where there is no term', () => {
    expect(dateText(dayOf('2027-02-05'), null, context({ term: null }))).toBe('Fri 5 Feb')
    expect(dateText(dayOf('2026-02-05'), null, context({ term: null }))).toBe('Thu 5 Feb 2026')
  })
})

describe('what the field says that it understood', () => {
  it('says which time is kept, where in the term that is, and what else is due', () => {
    expect(echo('fri wk 5', {}, 2)).toEqual({
      lead: 'Fri 5 Feb, 23:59 kept',
      rest: ['week 5', '2 more due that day'],
      tone: 'sure',
    })
    expect(echo('5 feb 17:00')).toEqual({ lead: 'Fri 5 Feb 17:00', rest: ['week 5'], tone: 'sure' })
  })
  it('keeps no time where none stood, and says no place where there is no term', () => {
    expect(echo('5 feb', { was: null }).lead).toBe('Fri 5 Feb 23:59')
    expect(echo('5 feb', { term: null })).toEqual({ lead: 'Fri 5 Feb, 23:59 kept', rest: [], tone: 'sure' })
    expect(echo('5 feb', { usualMinute: null, was: null }).lead).toBe('Fri 5 Feb')
  })
  it('asks where a day lies far from the term, and which of two is meant', () => {
    expect(echo('30 jun')).toEqual({
      lead: 'Wed 30 Jun, 23:59 kept, 70 days after exams end. Press Enter again to keep it.',
      rest: [],
      tone: 'asks',
    })
    expect(echo('3/4')).toEqual({ lead: '3 April or 4 March? Press 1 or 2.', rest: [], tone: 'asks' })
  })
  it('says that there is no date, or why a text is none', () => {
    expect(echo('none')).toEqual({ lead: 'No date', rest: [], tone: 'sure' })
    expect(echo('31 feb')).toEqual({ lead: 'February 2027 has 28 days.', rest: [], tone: 'refused' })
  })
})
