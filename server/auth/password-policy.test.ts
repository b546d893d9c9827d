import { describe, expect, it } from 'vitest'
import { waitAfter } from './guesses'
import { passwordFault } from './password-policy'

const marchetti = { login: 'marchetti', givenName: 'Ilse', familyName: 'Marchetti' }
describe('a password (NIST SP 800-63B, section 5.1.1.2)', () => {
  it.each([
    'correct horse battery',
    'der Deich hält noch',
    'xkqv-wplz-ntrb',
    '        a lot of blanks',
    '潮の満ち引きは月が決めるのです',
    'marchetti sails at slack water',
    'nothing must be mixed',
  ])('%s may be used: nothing must be mixed in', async password =>
    expect(await passwordFault(password, marchetti)).toBeNull(),
  )
  it.each([
    ['slack-water', 'At least 12'],
    ['x'.repeat(129), 'At most 128'],
    ['aaaaaaaaaaaaaa', 'over and over'],
    ['abcabcabcabcab', 'over and over'],
    ['abcdefghijklmno', 'in their order'],
    ['9876543210987', 'in their order'],
    ['qwerty123456', 'list of common'],
    ['1qaz2wsx3edc', 'list of common'],
    ['Password2026!!', 'list of common'],
    ['marchetti2026', 'a name'],
    ['IlseMarchetti1', 'a name'],
    ['Northtide2027!', 'a name'],
  ])('%s is refused', async (password, why) =>
    expect(await passwordFault(password, marchetti)).toContain(why),
  )
})

describe('the wait after wrong guesses', () => {
  it('is nothing at first, then doubles, and ends at a quarter of an hour', () => {
    expect([0, 4, 5, 6, 9, 14, 15, 40].map(count => waitAfter(count, 5))).toEqual([
      0, 0, 1, 2, 16, 512, 900, 900,
    ])
  })
})
