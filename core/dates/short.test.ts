import { describe, expect, it } from 'vitest'
import { shortHow, type Reason } from './reasons'

describe('how a date came to be, in a table’s last column', () => {
  const onClosure = (closure: string, from: string, to: string): Reason => ({
    field: 'opens',
    code: 'on-closure',
    before: from,
    after: from,
    details: { closure, from, to, policy: 'keep' },
  })
  it('names the closure that it is in, or on', () => {
    expect(shortHow([onClosure('Study week', '2027-02-15', '2027-02-19')])).toBe('in Study week')
    expect(shortHow([onClosure('Victoria Day', '2027-05-24', '2027-05-24')])).toBe('on Victoria Day')
    expect(shortHow([onClosure('', '2027-05-24', '2027-05-24')])).toBe('on a closure')
  })
  it('says that the new term has no such week', () => {
    const inWeek = (week: number, landing: number): Reason => ({
      field: 'due',
      code: 'keep-week',
      before: '2026-11-30',
      after: '2027-06-21',
      details: { week, landing, breakWeek: 0, weekStarts: '2027-06-21', was: 1, weekday: 1 },
    })
    expect(shortHow([inWeek(7, 7)])).toBe('week and weekday')
    expect(shortHow([inWeek(13, 7)])).toBe('past the last week')
  })
})
