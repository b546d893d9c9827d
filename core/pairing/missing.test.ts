import { describe, expect, it } from 'vitest'
import { whyMissing, type SectionFacts } from './missing'

const section = (more: Partial<SectionFacts> = {}): SectionFacts => ({
  section: '01',
  missing: false,
  role: null,
  primary: false,
  hidden: false,
  ...more,
})
describe('a shell that is not there', () => {
  it.each<[string, SectionFacts[], boolean, string, string | null]>([
    ['nobody made it yet', [], false, 'not-made', 'registrar'],
    ['the list cannot be had, so nobody knows', [], true, 'fault', 'help'],
    ['it is there and somebody else is on it', [section()], false, 'not-listed', 'school'],
    ['one is on it as an assistant', [section({ role: 'assistant' })], false, 'not-main', 'school'],
    ['one is on it as a further instructor', [section({ role: 'instructor' })], false, 'not-main', 'school'],
    ['one is its main instructor', [section({ role: 'instructor', primary: true })], false, 'there', null],
    [
      'one has hidden it',
      [section({ role: 'instructor', primary: true, hidden: true })],
      false,
      'hidden',
      null,
    ],
    [
      'it was taken off the list',
      [section({ role: 'instructor', primary: true, missing: true })],
      false,
      'cancelled',
      'registrar',
    ],
    [
      'nobody on it is asked where it was taken off',
      [section({ missing: true })],
      true,
      'cancelled',
      'registrar',
    ],
    [
      'a section one has comes before one that one has not',
      [section({ section: '01' }), section({ section: '02', role: 'instructor', primary: true })],
      false,
      'there',
      null,
    ],
  ])('%s', (_, sections, fails, reason, desk) =>
    expect(whyMissing(sections, fails)).toMatchObject({ reason, desk }),
  )
})
