import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { traceSearch } from '../../core/student-data/traces/find'
import { markupSegments } from '../../core/student-data/traces/markup'
import { phoneEnds, type TracedPerson } from '../../core/student-data/traces/people'
import { countsOf, plainKey, type Plant } from '../../tests/support/trace-corpus'
import { searchedFor, traceCases, tracedRoster, tracedThing } from '../../tests/support/traces'

type Listed = Omit<TracedPerson, 'phones'> & { readonly phone: string | null }
const students: TracedPerson[] = [
  ...tracedRoster(),
  ...(traceCases('corpus-roster') as Listed[]).map(({ phone, ...person }) => ({
    ...person,
    phones: phoneEnds(phone ?? '').map(plainKey),
  })),
]
const lines = (name: string): string[] =>
  readFileSync(new URL(`../../tests/cases/traces/${name}.txt`, import.meta.url), 'utf8')
    .split('\n')
    .filter(line => line !== '' && !line.startsWith('#'))
/** The half that was planted by hand, while the rules were made. */
const byHand: Plant[] = lines('corpus').map(line => {
  const [where = '', place = '', form = '', text = ''] = line.split(' | ')
  return {
    where,
    place,
    form,
    text: text.replace(/\[\[|\]\]/g, ''),
    trace: /\[\[(.*?)\]\]/.exec(text)?.[1] ?? '',
  }
})

describe('the corpus of planted traces', () => {
  it('has none unsaid in the half that was planted by hand', async () => {
    const { missed, counts } = await countsOf(byHand, students)
    console.log(
      byHand.length,
      [...counts].map(([where, row]) => `${where}: ${JSON.stringify(row)}`).join('\n'),
    )
    expect(missed).toEqual([])
  })
})

describe('pages with ordinary words that are names', () => {
  const sentences = lines('ordinary-words')
  it('leave at most five to settle in three hundred', async () => {
    let seed = 20_261_201
    // A generator of Park and Miller (1988), so that the pages are the same each time.
    const next = (below: number): number => (seed = (seed * 48_271) % 2_147_483_647) % below
    const search = traceSearch(searchedFor(students, { keyOf: plainKey }))
    for (let n = 0; n < 300; n++) {
      const html = Array.from({ length: 4 + next(8) }, () => sentences[next(sentences.length)]).join(' ')
      const parts = [
        { part: 'body:', file: null, segments: markupSegments(`<p>${html}</p>`), canWrite: true },
      ]
      search.look({ ...tracedThing, on: `page ${n}` }, { parts, isTable: false })
    }
    // Nothing of them is edited either: none is taken for a student for sure.
    const taken = search.result().traces.filter(({ weight }) => weight !== 'doubtful')
    expect(taken.map(({ before, text, after }) => `${before}[${text}]${after}`)).toEqual([])
  })
})
