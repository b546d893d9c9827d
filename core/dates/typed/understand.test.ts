import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { civilOfDay, clockOf, dayOf, wallOf } from '../../calendar/day'
import type { Meeting } from '../../calendar/schema'
import { springTerm } from '../../../tests/support/worked-case'
import { dayText } from '../words'
import { noDateText } from './no-date'
import type { TypedContext } from './typed'
import { timeTyped } from './time'
import { understand } from './understand'

const term = springTerm()
const meetings: Meeting[] = [
  { weekday: 2, start: '13:00', end: '14:15' },
  { weekday: 4, start: '13:00', end: '14:15' },
]
const at = (date: string, minute = 23 * 60 + 59) => ({ day: dayOf(date), minute })
const context = (more: Partial<TypedContext> = {}): TypedContext => ({
  term,
  meetings,
  was: at('2027-03-30'),
  usualMinute: 23 * 60 + 59,
  today: dayOf('2027-01-05'),
  ...more,
})
/** What was understood, in a word or two. */
function said(text: string, more: Partial<TypedContext> = {}): string {
  const understood = understand(text, context(more))
  switch (understood.is) {
    case 'none':
      return 'none'
    case 'which':
      return understood.days.map(day => wallOf(day, 0).slice(0, 10)).join(' or ')
    case 'no-date':
      return noDateText(understood.why)
    case 'date': {
      const moment = wallOf(understood.day, understood.minute ?? 0)
      return `${understood.minute === null ? moment.slice(0, 10) : moment}${understood.unlikely ? ' ?' : ''}`
    }
  }
}

describe('a typed date', () => {
  it.each([
    ['fri wk 5', '2027-02-05T23:59'],
    ['week 5 fri', '2027-02-05T23:59'],
    ['wk 5', '2027-02-02T23:59'],
    ['+2d', '2027-04-01T23:59'],
    ['-1 week', '2027-03-23T23:59'],
    ['5 mar 17:00', '2027-03-05T17:00'],
    ['March 5th at 5pm', '2027-03-05T17:00'],
    ['5 mar 17.00', '2027-03-05T17:00'],
    ['Fri, 5 Feb 08:00', '2027-02-05T08:00'],
    ['next class', '2027-04-01T13:00'],
    ['22.2.27', '2027-02-22T23:59'],
    ['2027-03-05', '2027-03-05T23:59'],
    ['2027-03-05T08:30', '2027-03-05T08:30'],
    ['20270305', '2027-03-05T23:59'],
    ['25/3', '2027-03-25T23:59'],
    ['3/25/2027', '2027-03-25T23:59'],
    ['4/4', '2027-04-04T23:59'],
    ['17:00', '2027-03-30T17:00'],
    ['noon', '2027-03-30T12:00'],
    ['fri', '2027-04-02T23:59'],
    ['next fri', '2027-04-02T23:59'],
    ['last fri', '2027-03-26T23:59'],
    ['tomorrow', '2027-01-06T23:59'],
    ['last day of classes', '2027-04-09T23:59'],
    ['none', 'none'],
    ['', 'none'],
    ['30 jun', '2027-06-30T23:59 ?'],
    ['first day of classes', '2027-01-06T23:59'],
    ['start of the exams', '2027-04-12T23:59'],
    ['end of exams', '2027-04-21T23:59'],
    ['in two weeks', '2027-04-13T23:59'],
    ['5 mar midnight', '2027-03-05T00:00'],
    ['5 mar 12am', '2027-03-05T00:00'],
    ['5 mar 12:30 pm', '2027-03-05T12:30'],
    ['5.3 17:00', '2027-03-05T17:00'],
    ['5.3.', '2027-03-05T23:59'],
    ['05032027', '2027-03-05T23:59'],
    ['29.3', '2027-03-29T23:59'],
    ['before exams', '2027-04-09T23:59'],
    ['day after study week', '2027-02-22T23:59'],
    ['mon after study week', '2027-02-22T23:59'],
    ['fri before study week', '2027-02-12T23:59'],
    ['after classes', '2027-04-12T23:59'],
  ])('%s', (text, expected) => {
    expect(said(text)).toBe(expected)
  })

  it('is asked which where day and month can change places', () => {
    expect(said('3/4')).toBe('2027-04-03 or 2027-03-04')
    expect(said('5/3/2027')).toBe('2027-03-05 or 2027-05-03')
  })

  it.each([
    ['31 feb', 'February 2027 has 28 days.'],
    ['31 Feb 2027', 'February 2027 has 28 days.'],
    ['31022027', 'February 2027 has 28 days.'],
    ['30/2', 'February 2027 has 28 days.'],
    ['5 mar 2072', '2072 is 45 years after this term.'],
    ['22.2.0027', '27 is 2,000 years before this term.'],
    ['tue 5 feb', '5 Feb 2027 is no Tuesday: it is a Friday.'],
    ['12', 'Which month? Type it too, as in “12 mar”.'],
    ['fri wk 40', 'There is no week 40: the term has 13 teaching weeks.'],
    ['5 mar 25:00', '25:00 is no time of day.'],
    ['5 mar 12:60', '12:60 is no time of day.'],
    ['5 mar 13pm', '13pm is no time of day.'],
    ['5 mar 0 am', '0 am is no time of day.'],
    ['wk 0', 'There is no week 0: the term has 13 teaching weeks.'],
    ['next tuesday at 5 or 6', 'Not understood. Try “5 mar”, “fri wk 5”, “+2d” or “none”.'],
    ['2027-13-01', 'There is no month 13.'],
    ['soon', 'Not understood. Try “5 mar”, “fri wk 5”, “+2d” or “none”.'],
    ['5 mar or 6 mar', 'Not understood. Try “5 mar”, “fri wk 5”, “+2d” or “none”.'],
  ])('%s is no date', (text, expected) => {
    expect(said(text)).toBe(expected)
  })

  it('is found beside a closure, named or next to the date', () => {
    const closure = term.closures.at(-1)!
    const after = said('tue after the closure', { was: at(wallOf(closure.to, 0).slice(0, 10)) })
    const day = dayOf(after)
    expect(day).toBeGreaterThan(closure.to)
    expect(day - closure.to).toBeLessThanOrEqual(7)
    expect(dayText(after).slice(0, 3)).toBe('Tue')
    expect(said(`fri before ${closure.name}`)).toMatch(/^2027-/)
    expect(said('tue after carnival')).toBe('The term has no closure called “carnival”.')
  })

  it('is found beside the closure that is next to the date, where none is named', () => {
    const on = (date: string) => ({ was: at(date) })
    expect(said('after the break', on('2027-02-17'))).toBe('2027-02-22T23:59')
    expect(said('before the break', on('2027-02-17'))).toBe('2027-02-12T23:59')
    // Between two of them: after the one that was, before the one that comes.
    expect(said('after the recess', on('2027-03-05'))).toBe('2027-02-22T23:59')
    expect(said('before the recess', on('2027-03-05'))).toBe('2027-03-25T23:59')
    expect(said('after the recess', on('2027-01-20'))).toBe('2027-02-22T23:59')
    expect(said('before the recess', on('2027-04-06'))).toBe('2027-03-25T23:59')
    expect(said('before the spring closure', on('2027-01-20'))).toBe('2027-03-25T23:59')
  })
  it('is the first class day of a week where nothing stands, else the weekday that stands', () => {
    expect(said('wk 1', { was: null })).toBe('2027-01-06T23:59')
    expect(said('wk 5', { was: null })).toBe('2027-02-01T23:59')
    expect(said('wk 5', { was: at('2027-01-08') })).toBe('2027-02-05T23:59')
  })
  it('is a class of the section, or says that none is there', () => {
    expect(said('next class', { was: at('2027-04-08') })).toBe('No class of the term follows.')
    expect(said('last class', { was: at('2027-01-07') })).toBe('No class of the term comes before.')
    expect(said('previous meeting')).toBe('2027-03-25T13:00')
    expect(said('next class', { was: null })).toBe('2027-01-07T13:00')
    expect(said('next class', { meetings: [] })).toBe(
      'The section has no meeting times. Type the day itself.',
    )
    for (const text of ['next class', 'before exams', 'end of classes'])
      expect(said(text, { term: null })).toBe('This field belongs to no term. Type the day itself.')
  })
  it('is asked twice from two weeks and a day away from the term', () => {
    expect(said('2026-12-23')).toBe('2026-12-23T23:59')
    expect(said('2026-12-22')).toBe('2026-12-22T23:59 ?')
    expect(said('2027-05-05')).toBe('2027-05-05T23:59')
    expect(said('2027-05-06')).toBe('2027-05-06T23:59 ?')
    expect(said('2026-12-22', { term: null })).toBe('2026-12-22T23:59')
    expect(said('2060-01-01', { term: null })).toBe('2060 is 33 years after this year.')
  })

  it('counts from what stands, or says that nothing does', () => {
    expect(said('+2d', { was: null })).toBe('There is no date yet to count from. Type the day itself.')
    expect(said('17:00', { was: null })).toBe('There is no date yet to count from. Type the day itself.')
    expect(said('5 mar', { was: null })).toBe('2027-03-05T23:59')
  })

  it('has no time where the field has none, and no weeks where there is no term', () => {
    expect(said('5 mar', { usualMinute: null })).toBe('2027-03-05')
    expect(said('fri wk 5', { term: null })).toBe('This field belongs to no term. Type the day itself.')
  })

  it('reads back every day around the term as the page writes it', () => {
    const { from, to } = term.classes
    fc.assert(
      fc.property(
        fc.integer({ min: from - 14, max: to + 28 }),
        fc.integer({ min: 0, max: 1439 }),
        (day, minute) => {
          const moment = wallOf(day, minute)
          const { year } = civilOfDay(day)
          for (const text of [
            moment,
            `${dayText(moment)} ${moment.slice(11)}`,
            `${dayText(moment)} ${year} ${moment.slice(11)}`,
          ])
            expect(said(text).replace(' ?', '')).toBe(moment)
        },
      ),
    )
  })

  it('is a day within two years of the term or none at all, whatever is typed', () => {
    const texts = fc.oneof(
      fc.string({ maxLength: 30 }),
      fc.stringMatching(/^[0-9./: -]{1,12}$/),
      fc.stringMatching(/^(mon|fri|wk|week|next|last|after|\+|jan|feb|mar|[0-9 ]){1,5}$/),
    )
    fc.assert(
      fc.property(texts, text => {
        const understood = understand(text, context())
        if (understood.is !== 'date') return
        const { year } = civilOfDay(understood.day)
        expect(year).toBeGreaterThanOrEqual(2025)
        expect(year).toBeLessThanOrEqual(2029)
      }),
      { numRuns: 2000 },
    )
  })
})

describe('a typed time of day', () => {
  const clock = (text: string): string | null => {
    const minute = timeTyped(text)
    return minute === null ? null : clockOf(minute)
  }
  it.each([
    ['14:30', '14:30'],
    [' 2:30 PM ', '14:30'],
    ['at noon', '12:00'],
    ['midnight', '00:00'],
    ['9', '09:00'],
    ['9.30', '09:30'],
    ['0930', '09:30'],
    ['930', '09:30'],
    ['12 am', '00:00'],
    ['23h59', '23:59'],
  ])('%j is %s', (typed, time) => expect(clock(typed)).toBe(time))

  it.each(['', '25:10', '9:75', '13 pm', 'after class', '5 Feb 9:30'])('%j is none', typed =>
    expect(clock(typed)).toBeNull(),
  )
})
