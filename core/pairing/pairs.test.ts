import { describe, expect, it } from 'vitest'
import { readPairs, resolvePairs, type NamedCourse, type PairLine } from './pairs'

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
const terms = {
  autumn: { code: '2026-autumn', name: 'Autumn 2026', classesFrom: '2026-09-02' },
  spring: { code: '2027-spring', name: 'Spring 2027', classesFrom: '2027-01-06' },
  before: { code: '2026-spring', name: 'Spring 2026', classesFrom: '2026-01-07' },
}
const course = (
  id: string,
  code: string,
  section: string,
  term: keyof typeof terms,
  holds = true,
): NamedCourse => ({ id, sourceId: `reg-${id}`, code, section, term: terms[term], holds })
const courses = [
  course('old', 'HYD 240', '01', 'autumn'),
  course('older', 'HYD 240', '01', 'before'),
  course('bread1', 'BKG 115', '01', 'autumn'),
  course('bread2', 'BKG 115', '02', 'autumn'),
  course('empty', 'ORN 130', '01', 'autumn', false),
  course('shell', 'HYD 240', '01', 'spring', false),
  course('loaf1', 'BKG 115', '01', 'spring', false),
  course('loaf2', 'BKG 115', '02', 'spring', false),
]
const resolve = (...lines: Partial<PairLine>[]) =>
  resolvePairs(
    lines.map((line, at) => ({ number: at + 2, source: '', sourceTerm: '', shell: '', ...line })),
    courses,
    terms.spring,
    [],
  )

describe('a table of pairs', () => {
  it('is read whatever the order of its columns and its separator', () => {
    expect(
      readPairs(bytes('Shell;Teacher;SOURCE;Source_Term\r\nHYD 240-01;x;HYD 240;Autumn 2026\r\n;;;\r\n')),
    ).toEqual([{ number: 2, source: 'HYD 240', sourceTerm: 'Autumn 2026', shell: 'HYD 240-01' }])
    expect(readPairs(bytes('from,into\na,b\n'))).toEqual({ missing: ['source', 'shell'] })
    expect(readPairs(bytes(''))).toEqual({ missing: ['source', 'shell'] })
  })
  it('names courses by code and section however written, by the code alone, or by the registrar’s identifier', () => {
    expect(resolve({ source: 'hyd240 01', shell: 'HYD 240' })).toEqual([{ source: 'old', shell: 'shell' }])
    expect(resolve({ source: 'reg-bread2', shell: 'reg-loaf2' })).toEqual([
      { source: 'bread2', shell: 'loaf2' },
    ])
    // The latest term that holds something counts, unless the line names another.
    expect(resolve({ source: 'HYD 240', sourceTerm: 'spring 2026', shell: 'HYD 240' })).toEqual([
      { source: 'older', shell: 'shell' },
    ])
  })
  it('tells of each line that means no pair why, and what to write', () => {
    const told = resolve(
      { source: 'BKG 115', shell: 'BKG 115-01' },
      { source: 'BKG 115-01', shell: 'BKG 115-01' },
      { source: 'ORN 130', shell: 'BKG 115-02' },
      { source: 'HYD 240', shell: 'XYZ 1' },
      { source: 'HYD 240' },
    )
    expect(told.map(each => ('why' in each ? each.why : each))).toEqual([
      '“BKG 115” names 2 sections of Autumn 2026: write which, such as BKG 115-01.',
      'Line 2 rolls into BKG 115-01 already.',
      'No course of a term before Spring 2027 that you may roll from, and that holds anything, is called “ORN 130”.',
      'No shell of Spring 2027 that you may roll into is called “XYZ 1”.',
      'The column “shell” is empty in this line.',
    ])
  })
})
