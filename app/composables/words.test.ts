import { describe, expect, it } from 'vitest'
import { instantInFull, instantText, instituteClock, tellTimeIn } from './words'

describe('the one clock', () => {
  it('is the institute’s, wherever the reader sits', () => {
    tellTimeIn('America/Halifax')
    expect(instantText('2027-01-06T00:00:00.000Z')).toBe('Tue 5 Jan 20:00')
    // In Halifax it is still the old year.
    expect(instantInFull('2027-01-01T02:30:00.000Z')).toBe('Thu 31 Dec 2026, 22:30')
    tellTimeIn('Asia/Tokyo')
    expect(instituteClock('2027-01-06T00:00:00.000Z')).toBe('2027-01-06T09:00')
  })
})
