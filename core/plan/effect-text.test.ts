import { describe, expect, it } from 'vitest'
import type { Effect } from './effect'
import { arriving, effectText, gradesText, leftText, lostCount, weightsText } from './effect-text'
import { nothingToSettle } from './to-settle'

const nothing: Effect = {
  added: { units: 0, items: 0, categories: 0, byKind: {} },
  filled: 0,
  replaced: 0,
  updated: { things: 0, parts: {} },
  removed: { things: 0, places: 0 },
  keptBoth: 0,
  renamed: 0,
  moved: 0,
  ownAdded: { made: 0, found: 0 },
  frames: 0,
  given: 0,
  around: { comes: 0, replaced: 0 },
  texts: { made: 0, joined: 0 },
  already: 0,
  deletedThere: 0,
  leftBehind: 0,
  leftUnasked: 0,
  kept: { units: 0, items: 0 },
  grades: { by: 'weights', categories: 0, sum: 0, changed: 0, rules: false },
  traces: { out: 0, kept: 0, passed: 0, unseen: 0 },
  periods: [],
  grace: null,
  dates: { dates: 5, straight: 5, moved: 0, held: 0, settle: 0, none: 0 },
  settle: nothingToSettle,
}
const added = (items: number, units: number): Effect['added'] => ({ ...nothing.added, items, units })

describe('the effect of a run in sentences', () => {
  it('says what is added and that nothing is lost', () => {
    expect(effectText({ ...nothing, added: added(98, 7) })).toBe(
      'Adds 98 items in 7 units. Replaces and removes nothing.',
    )
    expect(effectText({ ...nothing, added: added(1, 0) }, { tense: 'did' })).toBe(
      'Added 1 item. Replaced and removed nothing.',
    )
  })
  it('of a plan that leaves everything behind says so, not that it adds 0 items', () => {
    expect(effectText({ ...nothing, leftBehind: 98 })).toBe(
      'Adds nothing: 98 items stay behind. Replaces and removes nothing.',
    )
  })
  it('tells what is brought up to date apart from what is replaced, and says what of it', () => {
    const updated = { things: 98, parts: { dates: 98, state: 4 } }
    expect(effectText({ ...nothing, updated })).toBe(
      'Adds no item. Brings 98 things up to date: dates of 98, state of 4.',
    )
    expect(effectText({ ...nothing, added: added(2, 1), replaced: 1 })).toBe(
      'Adds 2 items in 1 unit. Replaces 1 item.',
    )
  })
  it('never says that nothing is replaced where categories, rules or things around the units are', () => {
    const changed = { ...nothing, grades: { ...nothing.grades, changed: 2, rules: true } }
    expect(effectText(changed)).toBe(
      'Adds no item. Writes over 2 grade categories. Writes over how grades are reckoned.',
    )
    const beside = { things: 6, sections: ['HYD 240-02', 'HYD 240-03'] }
    expect(effectText({ ...nothing, beside })).toContain('Removes 6 things from HYD 240-02 and HYD 240-03.')
    expect(effectText({ ...nothing, beside })).not.toContain('nothing')
    expect(effectText({ ...nothing, around: { comes: 2, replaced: 1 } })).toBe(
      'Adds no item. Replaces 1 thing around the units.',
    )
    expect(lostCount(changed)).toBe(3)
  })
  it('calls an empty place an empty place', () => {
    expect(effectText({ ...nothing, added: added(3, 1), removed: { things: 0, places: 1 } })).toBe(
      'Adds 3 items in 1 unit. Removes 1 empty place.',
    )
    expect(effectText({ ...nothing, removed: { things: 2, places: 3 } }, { tense: 'did' })).toContain(
      'Removed 2 things and 3 empty places.',
    )
  })
  it('counts what arrives in empty places among what arrives', () => {
    const effect = { ...nothing, added: added(4, 1), filled: 6 }
    expect(arriving(effect)).toBe(10)
    expect(effectText(effect)).toBe(
      'Adds 4 items in 1 unit. Fills 6 empty places. Replaces and removes nothing.',
    )
  })
  it('in place adds nothing, after a snapshot', () => {
    expect(effectText(nothing, { inPlace: true })).toBe(
      'Writes 5 dates into the course itself, after a snapshot of it. Adds nothing.',
    )
  })
})
describe('the grade rules of a run', () => {
  it.each([
    [1_000_000, 'the weights make 100'],
    [950_000, 'the weights make 95, less than 100: each counts in proportion'],
    [1_100_000, 'the weights make 110, more than 100: each counts in proportion'],
    [550_000, 'the weights make 55, less than 100: each counts in proportion'],
  ])('weights of %i ten-thousandths: %s', (sum, words) => {
    expect(weightsText({ by: 'weights', categories: 4, sum })).toBe(words)
  })
  it('says what of the shell is written over, and where there is no category at all', () => {
    const grades = { by: 'points' as const, categories: 4, sum: 0, changed: 0, rules: false }
    expect(gradesText(grades)).toBe('by points; none of the shell’s is written over')
    expect(gradesText({ ...grades, changed: 1, rules: true })).toBe(
      'by points; 1 of the shell’s is written over; how grades are reckoned there is written over',
    )
    expect(gradesText({ ...grades, categories: 0 })).toBe('the shell then has no grade category')
  })
})
describe('what stays behind', () => {
  it('is somebody’s choice only where somebody chose', () => {
    expect(leftText({ leftBehind: 0, leftUnasked: 0 })).toBe('no item, but everything about students')
    expect(leftText({ leftBehind: 3, leftUnasked: 3 })).toBe(
      '3 items that stay unless you ask for them in Carry; and everything about students',
    )
    expect(leftText({ leftBehind: 4, leftUnasked: 1 }, 'did')).toBe(
      '3 items left by choice, 1 item that nobody asked for; and everything about students',
    )
  })
})
