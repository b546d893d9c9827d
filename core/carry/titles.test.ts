import { describe, expect, it } from 'vitest'
import { comparableTitle, nameBy, withoutNumber } from './titles'

describe('a title without its number', () => {
  it.each([
    ['Week 3: Tides', 'Tides'],
    ['Unit 1 – Flour and water', 'Flour and water'],
    ['3.2 Étude', 'Étude'],
    ['12) Checks', 'Checks'],
    ['Tides of 1911', 'Tides of 1911'],
    ['Weekend', 'Weekend'],
    ['Week 3', 'Week 3'],
    ['2027', '2027'],
  ])('%s is %s', (title, bare) => {
    expect(withoutNumber(title)).toBe(bare)
    // Taken off or not, both are one title where titles meet.
    expect(comparableTitle(withoutNumber(title))).toBe(comparableTitle(title))
  })
  it('is put into a pattern with another', () => {
    expect(nameBy('Week {n}: {title}', 'Unit 7 – Twills', 2)).toBe('Week 2: Twills')
    expect(nameBy('{title}', '1. Plain weave', 1)).toBe('Plain weave')
    expect(nameBy('{n}', 'Twills', 4)).toBe('4')
  })
})
