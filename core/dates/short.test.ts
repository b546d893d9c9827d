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
})
