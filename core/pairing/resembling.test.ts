import { describe, expect, it } from 'vitest'
import { codePatterns } from './codes'
import { unknownCode } from './resembling'

const known = ['HYD 240', 'HYD 310', 'BKG 115', 'WVG 201', 'ORN 130']
const none = { patterns: [], mapped: [] }

describe('a code of no known course', () => {
  it('is none where the code is known in another form', () => {
    expect(unknownCode('hyd-240', known, none)).toBeNull()
    expect(
      unknownCode('HYD 140', known, { ...none, mapped: [{ from: 'HYD 140', to: 'HYD 240' }] }),
    ).toBeNull()
    const patterns = codePatterns([{ text: '{year}{season}-{subject}{number}', seasons: { S: 'spring' } }])
    expect(unknownCode('2027S-HYD240', known, { patterns, mapped: [] })).toBeNull()
  })
  it('brings those that look like it: exchanged figures before others as near', () => {
    expect(unknownCode('HYD 420', known, none)).toEqual(['HYD 240', 'HYD 310'])
    expect(unknownCode('BGK 115', known, none)).toEqual(['BKG 115'])
    expect(unknownCode('WVG 2011', known, none)).toEqual(['WVG 201'])
  })
  it('brings nothing where nothing looks like it', () => {
    expect(unknownCode('CHM 999', known, none)).toEqual([])
  })
})
