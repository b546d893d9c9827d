import { describe, expect, it } from 'vitest'
import { pairCountsText, decisionsText, pairEffectText, pairsIn } from './words'

const none = {
  units: 0,
  items: 0,
  replaced: 0,
  cleared: 0,
  studentRows: 0,
  dates: 0,
  settle: 0,
  alsoSettle: 0,
}
const counts = { waiting: 0, ready: 38, look: 1, exception: 2, out: 0, done: 0, failed: 0, undone: 0 }

describe('a batch in words', () => {
  it('says what is lost, or that nothing is', () => {
    expect(pairEffectText({ ...none, items: 196, units: 14 }, false)).toBe(
      'Adds 196 items in 14 units. Replaces and removes nothing.',
    )
    expect(pairEffectText({ ...none, items: 1, units: 1, cleared: 1, studentRows: 3 }, true)).toBe(
      'Added 1 item in 1 unit. Removed 1 thing of the shell. Cleared 3 records about students.',
    )
  })
  it('counts its pairs by how they stand, leaving out what there is none of', () => {
    expect(pairCountsText({ counts })).toBe('38 ready, 1 needs a look, 2 exceptions')
    expect(pairsIn({ counts })).toBe(41)
    expect(decisionsText({ how: 'habit', habit: 'Labs' })).toBe('the habit “Labs”')
  })
})
