import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cleanedBody, cleanedJson, cleanedLine, jsonSegments, mergePatch } from './clean'
import { traceId, traceSearch } from './find'
import { folded } from './fold'
import { edited, editsFor, isCased, markupSegments, segment, type Segment } from './markup'
import type { TracedPerson } from './people'
import { readerFor } from './readers'
import { peopleIndex, scan } from './scan'
import { insteadOf, type TraceAnswer } from './trace'

const cases = (name: string): unknown =>
  JSON.parse(readFileSync(new URL(`../../../tests/cases/traces/${name}.json`, import.meta.url), 'utf8'))
const roster = cases('roster') as TracedPerson[]
interface Planted {
  is: string
  as: 'page' | 'questions' | 'table' | 'drawing' | 'settings' | 'title'
  text: string
  finds: string[]
}
const { tuned, keptBack, onlyWords } = cases('planted') as Record<
  'tuned' | 'keptBack' | 'onlyWords',
  Planted[]
>
const types = {
  page: 'text/html',
  questions: 'application/xml',
  table: 'text/csv',
  drawing: 'image/svg+xml',
} as const
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
function segmentsOf({ as, text }: Pick<Planted, 'as' | 'text'>): readonly Segment[] {
  if (as === 'title') return [segment('title', text)]
  if (as === 'settings') return jsonSegments(JSON.parse(text))
  return (
    readerFor(types[as], '')
      ?.open(bytes(text), '')
      .parts.flatMap(part => part.segments) ?? []
  )
}
const nobody = { alsoHere: new Set<string>(), staff: [] }
const thing = {
  on: '11111111-1111-5111-8111-111111111111',
  entity: 'item',
  side: 0,
  title: '',
  itemKind: 'page',
} as const
/** Words found in one text, looked through alone. */
function found(planted: Pick<Planted, 'as' | 'text'>): string[] {
  const search = traceSearch({ students: roster, ...nobody })
  search.look(thing, { segments: segmentsOf(planted), isTable: false, canWrite: true })
  return search.result().traces.map(trace => trace.text)
}

describe('traces that were planted', () => {
  // The second half was written after the rules and was not used to make them.
  for (const [half, list] of [
    ['the half that the rules were made with', tuned],
    ['the half that was kept back', keptBack],
  ] as const)
    it.each(list)(`are found, ${half}: $is, $text`, planted => {
      expect(found(planted)).toEqual(planted.finds)
    })
  it.each(onlyWords)('are not seen in what are only words: $text', planted => {
    expect(found(planted)).toEqual([])
  })
  it('are sixty', () => {
    expect(tuned.length).toBe(30)
    expect(keptBack.length).toBe(30)
  })
})

describe('one name alone', () => {
  const look = (texts: readonly string[], staff: { given: string; family: string }[] = []) => {
    const search = traceSearch({ students: roster, alsoHere: new Set(), staff })
    texts.forEach((text, n) =>
      search.look(
        { ...thing, on: `thing ${n}` },
        { segments: markupSegments(text), isTable: false, canWrite: true },
      ),
    )
    return search.result()
  }
  it('that stands in many things is a word of the course, and is told so', () => {
    const { traces, passedOver } = look(Array.from({ length: 8 }, (_, n) => `<p>See Quist, figure ${n}.</p>`))
    expect(traces).toEqual([])
    expect(passedOver).toEqual([{ word: 'Quist', why: 'course' }])
  })
  it('of teaching staff is theirs', () => {
    const { traces, passedOver } = look(['<p>Ask Halvard.</p>'], [{ given: 'Halvard', family: 'Berg' }])
    expect([traces, passedOver]).toEqual([[], [{ word: 'Halvard', why: 'staff' }]])
  })
  it('beside the full name is that person’s; elsewhere somebody must say', () => {
    const { traces } = look(['<p>Halvard Ness wrote. Then Halvard slept.</p>', '<p>Then Halvard woke.</p>'])
    expect(traces.map(({ on, text, proposed }) => [on, text, proposed])).toEqual([
      ['thing 0', 'Halvard Ness', 'role'],
      ['thing 0', 'Halvard', 'role'],
      ['thing 1', 'Halvard', null],
    ])
  })
  it('of somebody who is here now too wants an answer, in full as well', () => {
    const search = traceSearch({ students: roster, alsoHere: new Set(['6']), staff: [] })
    search.look(thing, { segments: markupSegments('<p>Halvard Ness</p>'), isTable: false, canWrite: true })
    expect(search.result().traces[0]).toMatchObject({ isAlsoHere: true, proposed: null })
  })
})

const index = peopleIndex(roster)
const cleaned = (html: string, answer: TraceAnswer): string => {
  const reader = readerFor('text/html', 'page.html')
  const open = reader?.open(bytes(html), 'page.html')
  if (!reader || !open) throw new Error('nothing reads a page')
  const ids = open.parts.flatMap(({ segments }) =>
    segments.flatMap(each =>
      scan(each.text, index, { isCased: isCased(each.place) }).map(({ from, to }) =>
        traceId('on', each.place, each.text.slice(from, to)),
      ),
    ),
  )
  const answers = new Map(ids.map(id => [id, answer]))
  const clean = cleanedBody(open, reader, { on: 'on', index, answers })
  return clean ? new TextDecoder().decode(clean) : html
}
describe('taking a trace out', () => {
  it('leaves all else letter for letter, whatever marks stand within the name', () => {
    expect(cleaned('<p class=x>Ask Niamh <b>O’Car</b>row&nbsp;first.</p>', 'role')).toBe(
      '<p class=x>Ask a student<b></b>&nbsp;first.</p>',
    )
    expect(cleaned('<p>Zo&euml; Tarrant-M&uuml;ller wrote.</p>', 'role')).toBe('<p>A student wrote.</p>')
    expect(cleaned('<p>x</p><!-- N04198 -->', 'remove')).toBe('<p>x</p><!--  -->')
  })
  it('takes a link to a student away, and its words stay', () => {
    expect(cleaned('<a class="k" href="mailto:w.bay@port-ellery.example">write</a>', 'remove')).toBe(
      '<a class="k" >write</a>',
    )
  })
  it('says “A student” where a sentence begins', () => {
    expect(cleaned('<p>Will Bay came. Then Will Bay went.</p>', 'role')).toBe(
      '<p>A student came. Then a student went.</p>',
    )
  })
  it('takes a student’s key out of settings with all that stands under it', () => {
    const settings = {
      timeLimit: 20,
      extra: { 'lt-2026-05': 2, all: 1 },
      to: ['N04198', 'office'],
      note: 'ask Will Bay',
    }
    const ids = ['lt-2026-05', 'N04198', 'Will Bay'].map(text => traceId('on', 'settings', text))
    const answers = new Map(ids.map(id => [id, 'remove' as const]))
    const clean = cleanedJson(settings, { on: 'on', index, answers }) as typeof settings
    expect(clean).toEqual({ timeLimit: 20, extra: { all: 1 }, to: ['office'], note: 'ask' })
    // RFC 7396: null takes a name away.
    expect(mergePatch(settings, clean)).toEqual({
      extra: { 'lt-2026-05': null },
      to: ['office'],
      note: 'ask',
    })
  })
  it('is found no more once taken out, and taking it out again changes nothing', () => {
    const anyText = fc
      .array(
        fc.oneof(
          fc.constantFrom('Will Bay', 'Quist, Anna Maria', 'N04198', 'Zo&euml; Tarrant-Müller', 'H. E. Ness'),
          fc.constantFrom(
            '<p>',
            '</p>',
            '<b>',
            '</b>',
            '<!--',
            '-->',
            '<br>',
            '&amp;',
            '<a title="',
            '">',
            ' ',
          ),
          fc.string({ maxLength: 6 }),
        ),
        { maxLength: 12 },
      )
      .map(parts => parts.join(' '))
    fc.assert(
      fc.property(anyText, fc.constantFrom('remove' as const, 'role' as const), (html, answer) => {
        const once = cleaned(html, answer)
        const left = markupSegments(once).flatMap(each =>
          scan(each.text, index, { isCased: isCased(each.place) }),
        )
        expect(left).toEqual([])
        expect(cleaned(once, answer)).toBe(once)
      }),
      { numRuns: 500 },
    )
  })
  it('changes just what it says, wherever in a segment that is', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 30 }), fc.nat(), fc.nat(), (text, a, b) => {
        const html = `<p>${text.replace(/&/g, '&amp;').replace(/</g, '&lt;')}</p>`
        const [first] = markupSegments(html).filter(each => each.place === 'text')
        if (!first || first.text !== text) return
        const [from, to] = [Math.min(a, b) % text.length, Math.max(a, b) % text.length].sort((x, y) => x - y)
        if (from === to) return
        const raw = edited(html, editsFor(first, from ?? 0, to ?? 0, '|'))
        const expected = `${text.slice(0, from)}|${text.slice(to)}`
        expect(markupSegments(raw).find(each => each.place === 'text')?.text ?? '').toBe(expected)
      }),
    )
  })
})

describe('a page made to do harm', () => {
  const times = 200_000
  it.each([
    ['one long attribute', `<a ${'a'.repeat(times)} =`],
    ['tags that never end, in references', `>${'&lt;a'.repeat(times)}`],
    ['quotes that never end', `<a "'`.repeat(times)],
    ['comments in comments', '<!--'.repeat(times)],
    ['references within references', `${'&amp;'.repeat(times)}lt;`],
    ['a quiz in one text', `<mattext>${'&lt;b&gt;x&lt;/b&gt; '.repeat(times / 10)}</mattext>`],
    ['names without end', 'Will '.repeat(times)],
  ])('is gone through like any other: %s', (_, html) => {
    const search = traceSearch({ students: roster, ...nobody })
    search.look(thing, { segments: markupSegments(html), isTable: false, canWrite: true })
    expect(search.result().traces.filter(trace => trace.isStrong)).toEqual([])
  })
})

describe('words', () => {
  it('are compared without case and marks, composed or not', () => {
    for (const [a, b] of [
      ['ZOË', 'zoe\u0308'],
      ['Straße', 'STRASSE'],
      ['Øystein', 'oystein'],
      ['Łukasz', 'lukasz'],
      ['Şebnem', 'sebnem'],
    ] as const)
      expect(folded(a)).toBe(folded(b))
  })
  it('of a role begin with a capital only where a sentence does', () => {
    expect(insteadOf('role', '')).toBe('A student')
    expect(insteadOf('role', 'It rained. ')).toBe('A student')
    expect(insteadOf('role', 'Ask ')).toBe('a student')
    expect(insteadOf('remove', 'Ask ')).toBe('')
  })
  it('of a title go, and no blank is left twice', () => {
    const answers = new Map([[traceId('on', 'title', 'Will Bay'), 'remove' as const]])
    expect(cleanedLine('Notes of Will Bay, week 1', 'title', { on: 'on', index, answers })).toBe(
      'Notes of , week 1',
    )
  })
})
