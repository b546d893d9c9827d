import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  areOneCourse,
  codeKey,
  codePattern,
  readByPattern,
  readCode,
  seasonOf,
  termDisagreement,
  type CodePattern,
} from './codes'

const spellings = { S: 'spring', SU: 'summer', F: 'autumn', W: 'winter' } as const
const pattern = (text: string): CodePattern => {
  const made = codePattern(text, spellings)
  if ('problem' in made) throw new Error(made.problem)
  return made
}

describe('course codes', () => {
  it('are taken apart by the pattern that the office wrote', () => {
    expect(readByPattern('HYD 240-01', pattern('{subject} {number}-{section}'))).toMatchObject({
      subject: 'HYD',
      number: '240',
      section: '01',
      year: null,
    })
    expect(
      readByPattern(
        '2027S-hyd240L-B2-30117',
        pattern('{year}{season}-{subject}{number}-{section}-{reference}'),
      ),
    ).toEqual({
      pattern: '{year}{season}-{subject}{number}-{section}-{reference}',
      subject: 'HYD',
      number: '240L',
      section: 'B2',
      year: 2027,
      season: 'spring',
      reference: '30117',
    })
    expect(readByPattern('SU27.HYD_240', pattern('{season}{year} {subject}-{number}'))).toMatchObject({
      season: 'summer',
      year: 2027,
      subject: 'HYD',
    })
    expect(readByPattern('HYD240', pattern('{subject} {number}'))).toMatchObject({
      subject: 'HYD',
      number: '240',
    })
    for (const code of ['', 'HYD', '240', 'HYD 240-01-x', 'H 240'])
      expect(readByPattern(code, pattern('{subject} {number}'))).toBeNull()
  })
  it('written by a pattern are read by it, whatever the separators and case', () => {
    const parts = fc.record({
      subject: fc.stringMatching(/^[A-Z]{2,6}$/),
      number: fc.stringMatching(/^\d{3}[A-Z]?$/),
      section: fc.stringMatching(/^\d{2}$/),
      year: fc.integer({ min: 2000, max: 2099 }),
      season: fc.constantFrom('S', 'SU', 'F', 'W'),
      between: fc.constantFrom(' ', '-', '_', '.', '/'),
      lower: fc.boolean(),
    })
    fc.assert(
      fc.property(parts, ({ subject, number, section, year, season, between, lower }) => {
        const code = [`${year}${season}`, subject, number, section].join(between)
        expect(
          readByPattern(
            lower ? code.toLowerCase() : code,
            pattern('{year}{season}-{subject}-{number}-{section}'),
          ),
        ).toMatchObject({ subject, number, section, year, season: spellings[season as 'S'] })
      }),
    )
  })
  it('end in time, whatever the pattern and the code', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 80 }),
        fc.shuffledSubarray(
          ['{subject}', '{number}', '{section}', '{year}', '{season}', '{reference}', '-', ' ', '.', 'A'],
          { minLength: 1 },
        ),
        (code, pieces) => {
          const made = codePattern(pieces.join(''), spellings)
          if ('problem' in made) return
          const reading = readByPattern(code, made)
          if (reading) expect(reading.number ?? reading.reference).not.toBeNull()
        },
      ),
    )
    // Ways without number, were each tried: the test would never end.
    expect(readByPattern('-'.repeat(79) + '1', pattern(`${'-'.repeat(90)}{number}`))).toBeNull()
    expect(readByPattern('1'.repeat(80), pattern('{year}-{number}-{section}-{reference}-A'))).toBeNull()
  })
  it.each([
    ['', 'Write a pattern'],
    ['{subject} {nummer}', '{nummer} is no part'],
    ['{number}{number}', 'stands twice'],
    ['{subject}-{section}', 'needs {number} or {reference}'],
    ['{number', 'stands alone'],
    ['x'.repeat(101), 'at most 100'],
  ])('a pattern %j is told what is wrong', (text, problem) =>
    expect(codePattern(text, spellings)).toEqual({ problem: expect.stringContaining(problem) }),
  )
  it('a pattern with a season needs its spellings', () =>
    expect(codePattern('{season} {number}', {})).toEqual({ problem: expect.stringContaining('spellings') }))
  it('have a key that stays when the form changes', () => {
    const patterns = [pattern('{year}{season}-{subject}{number}-{section}'), pattern('{subject} {number}')]
    expect(['2026F-HYD240-01', 'hyd 240', 'HYD-240', 'HYD240'].map(code => codeKey(code, patterns))).toEqual([
      'HYD 240',
      'HYD 240',
      'HYD 240',
      'HYD 240',
    ])
    expect([codeKey('HYD 240 (old)', []), codeKey('Tides!', [])]).toEqual(['HYD 240', 'TIDES'])
    expect(readCode('Tides', patterns)).toBeNull()
  })
  it('are of one course where the patterns read them alike, or where one is the other renumbered', () => {
    const patterns = [pattern('{year}{season}-{subject}{number}-{section}'), pattern('{subject} {number}')]
    const mapped = [{ from: 'HYD 140', to: 'HYD 240' }]
    const isOne = (one: string, other: string) => areOneCourse(one, other, { patterns, mapped })
    expect(isOne('2026F-HYD240-01', 'HYD 240')).toBe(true)
    expect(isOne('HYD 240', 'HYD 140')).toBe(true)
    expect(isOne('HYD 140', 'BKG 115')).toBe(false)
  })
  it('that name another term than theirs are told, with both readings', () => {
    const spring = { name: 'Spring 2027', classesFrom: '2027-01-06' }
    const of = (code: string) =>
      termDisagreement(readByPattern(code, pattern('{year}{season} {subject} {number}')), spring)
    expect([of('2027S HYD 240'), of('27S HYD 240'), of('2026F HYD 240'), of('2027F HYD 240')]).toEqual([
      null,
      null,
      { code: 'autumn 2026', term: 'Spring 2027, from 2027-01-06' },
      { code: 'autumn 2027', term: 'Spring 2027, from 2027-01-06' },
    ])
    expect(termDisagreement(readByPattern('HYD 240', pattern('{subject} {number}')), spring)).toBeNull()
    expect([
      seasonOf({ name: 'Fall term', classesFrom: '2026-09-02' }),
      seasonOf({ name: 'T1', classesFrom: '2026-01-10' }),
      seasonOf({ name: 'T2', classesFrom: '2026-05-10' }),
    ]).toEqual(['autumn', 'winter', 'summer'])
  })
})
