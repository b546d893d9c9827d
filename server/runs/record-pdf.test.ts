import { describe, expect, it } from 'vitest'
import { noDates } from '../../core/course/dates'
import { studentDataNames } from '../../core/student-data/student-data'
import type { RunRecord } from '../../shared/api/run-record'
import { anyText } from '../search/file-text'
import { pdfFonts } from '../../tests/support/fonts'
import { recordPdf } from './record-pdf'

const fonts = pdfFonts()
const course = { code: 'HYD 240', section: '01', title: 'Tides', term: 'Autumn 2026' }
const entry = {
  entity: 'item',
  lineage: '00000000-0000-7000-8000-000000000001',
  action: 'added',
  was: null,
  kind: 'assignment',
  depth: 1,
  ...noDates,
  flags: [],
  why: [],
  category: 'Labs',
  rubric: null,
  from: null,
  isMade: false,
  text: null,
} as const
const record = (titles: readonly string[]): RunRecord =>
  ({
    format: 'northtide-run',
    version: 1,
    id: '00000000-0000-7000-8000-000000000000',
    source: course,
    into: { ...course, term: 'Spring 2027' },
    by: 'I. Marchetti',
    startedAt: '2027-01-06T00:00:00.000Z',
    finishedAt: '2027-01-06T00:00:00.000Z',
    undoneAt: null,
    inPlace: false,
    sections: [],
    effect: {
      added: { units: 1, items: titles.length, categories: 1, byKind: {} },
      filled: 0,
      replaced: 0,
      updated: { things: 0, parts: {} },
      removed: { things: 0, places: 0 },
      keptBoth: 0,
      around: { comes: 0, replaced: 0 },
      grades: { by: 'weights', categories: 1, sum: 950_000, changed: 0, rules: false },
      leftUnasked: 1,
      leftBehind: 1,
      dates: { dates: 0, straight: 0, moved: 0, held: 0, settle: 0, none: 0 },
    },
    shell: [],
    entries: titles.map(title => ({ ...entry, title })),
    left: [{ title: 'An old notice', kind: 'announcement', why: 'announced' }],
    audit: studentDataNames.map(kind => ({ kind, before: 0, after: 0, cleared: 0, onNewItems: 0 })),
    searched: null,
  }) as unknown as RunRecord

describe('the record as a PDF', () => {
  // Read back with pdf.js, a library that knows nothing of the one that wrote it.
  it('holds every title in whatever script it is written, and what no font has as a question mark', async () => {
    const titles = ['Pływy w Łodzi', 'Приливы', 'Παλίρροια', 'Marée à Québec', '潮 at sea']
    const bytes = await recordPdf(record(titles), fonts, 'America/Halifax')
    const text = (await anyText(bytes, 'application/pdf', 'record.pdf')) ?? ''
    for (const title of titles.slice(0, 4)) expect(text).toContain(title)
    expect(text).toContain('? at sea')
    expect(text).toContain('Record of a run: HYD 240-01, Autumn 2026 into HYD 240-01, Spring 2027')
    expect(text).toContain('Replaced and removed nothing. Grade rules: the weights make 95, less than 100')
    expect(text).toContain('Left behind: 1 item that nobody asked for')
    expect(text).toContain('Run Tue 5 Jan 20:00, 2027 by I. Marchetti.')
    expect(text).toContain('An old notice (announced)')
  })
  it('goes on over as many pages as it needs, each numbered', async () => {
    const bytes = await recordPdf(
      record(Array.from({ length: 120 }, (_, n) => `Lab sheet ${n}`)),
      fonts,
      'America/Halifax',
    )
    const text = (await anyText(bytes, 'application/pdf', 'record.pdf')) ?? ''
    const [, count] = /page 1 of (\d+)/.exec(text) ?? []
    expect(Number(count)).toBeGreaterThan(3)
    expect(text).toContain(`page ${count} of ${count}`)
    expect(text).toContain('Lab sheet 119')
  })
})
