import { describe, expect, it } from 'vitest'
import { datedSpan } from './dated-span'

describe('datedSpan', () => {
  it('takes the first day and the last, in whatever order they stand', () => {
    expect(datedSpan(['2025-10-03', '2025-09-08', '2025-12-04'])).toEqual({
      from: '2025-09-08',
      to: '2025-12-04',
    })
  })
  it('leaves a slip of eighty years, and one of two, aside', () => {
    const days = ['1945-10-01', '2025-09-08', '2025-09-15', '2025-12-04', '2027-12-01']
    expect(datedSpan(days)).toEqual({ from: '2025-09-08', to: '2025-12-04' })
  })
  it('has nothing to say where nothing is dated', () => {
    expect(datedSpan([])).toBeNull()
  })
})
