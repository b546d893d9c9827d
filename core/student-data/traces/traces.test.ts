import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  decidedAll,
  lookedThroughFile,
  searchedFor,
  traceCases,
  tracedRoster,
  tracedThing,
} from '../../../tests/support/traces'
import { traceSearch, wordIdOf, type SearchedPart } from './find'
import { folded } from './fold'
import { edited, editsFor, markupSegments } from './markup'
import type { TracedPerson } from './people'
import {
  isEditedOnlyThere,
  jsonParts,
  linePart,
  mergePatch,
  editsByThing,
  redactedJson,
  redactedLine,
  titlePart,
} from './redact'
import { answerOf, decisionOf, type Trace, type TraceAnswer, type TraceDecisions } from './trace'

const roster = tracedRoster()
interface Planted {
  is: string
  as: 'page' | 'questions' | 'table' | 'drawing' | 'settings' | 'title'
  text: string
  finds: string[]
}
const { tuned, keptBack, onlyWords } = traceCases('planted') as Record<
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
const textOf = (of: Uint8Array): string => new TextDecoder().decode(of)
const page = (html: string, people = searchedFor(roster)) =>
  lookedThroughFile({ bytes: bytes(html), mediaType: 'text/html' }, people)
function inParts(parts: readonly SearchedPart[]): Trace[] {
  const search = traceSearch(searchedFor(roster))
  search.look(tracedThing, { parts, isTable: false })
  return search.result().traces
}
/** What was found in one text, looked through alone. */
async function tracesIn({ as, text }: Pick<Planted, 'as' | 'text'>): Promise<Trace[]> {
  if (as === 'title') return inParts([linePart('title', text)])
  if (as === 'settings') return inParts(jsonParts(JSON.parse(text), 'settings'))
  return (await lookedThroughFile({ bytes: bytes(text), mediaType: types[as] }, searchedFor(roster))).traces
}

describe('traces that were planted', () => {
  // The second half was written after the rules and was not used to make them.
  for (const [half, list] of [
    ['the half that the rules were made with', tuned],
    ['the half that was kept back', keptBack],
  ] as const)
    it.each(list)(`are found, ${half}: $is, $text`, async planted => {
      expect((await tracesIn(planted)).map(trace => trace.text)).toEqual(planted.finds)
    })
  it.each(onlyWords)('are not seen in what are only words: $text', async planted => {
    expect((await tracesIn(planted)).filter(({ weight }) => weight !== 'doubtful')).toEqual([])
  })
})

describe('one name alone', () => {
  const look = (texts: readonly string[], staff: { given: string; family: string }[] = []) => {
    const search = traceSearch(searchedFor(roster, { staff }))
    texts.forEach((text, n) =>
      search.look(
        { ...tracedThing, on: `thing ${n}` },
        {
          parts: [{ part: 'body:', file: null, segments: markupSegments(text), canWrite: true }],
          isTable: false,
        },
      ),
    )
    return search.result()
  }
  const weights = (...texts: string[]): string[] =>
    look(texts).traces.map(({ text, weight }) => `${text} ${weight}`)
  it('that stands in many things is probably a word of the course, and in very many it is one', () => {
    const pages = (n: number) => Array.from({ length: n }, (_, at) => `<p>See Quist, figure ${at}.</p>`)
    expect(new Set(weights(...pages(8)))).toEqual(new Set(['Quist doubtful']))
    const { traces, passedOver } = look(pages(50))
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
  it('is only to look at where its form says that it is somebody else, or a word', () => {
    expect(weights('<p>Read Halvard Berg on fog.</p>')).toEqual(['Halvard doubtful'])
    expect(weights('<p>As Quist et al. showed.</p>')).toEqual(['Quist doubtful'])
    expect(weights('<p>We read J. Quist.</p>')).toEqual(['Quist doubtful'])
    expect(weights('<p>We read <i>The Roads of Lorne</i>.</p>')).toEqual(['Lorne doubtful'])
    expect(weights('<p>We read “The Roads of Lorne”.</p>')).toEqual(['Lorne doubtful'])
    expect(weights('<p>Where <i>Lorne</i> was.</p>')).toEqual(['Lorne ask'])
    expect(weights('<p>He said “ask Lorne about it first”.</p>')).toEqual(['Lorne ask'])
    expect(weights('<p>We asked Bay.</p>', '<p>The water of a bay is calm.</p>')).toEqual(['Bay doubtful'])
  })
  it('is to settle all the same with a title, a number or another student near', () => {
    expect(weights('<p>We asked Ms. Bay.</p>', '<p>The water of a bay is calm.</p>')).toEqual(['Bay ask'])
    expect(weights('<p>Dr. Quist et al. showed.</p>')).toEqual(['Quist ask'])
    expect(weights('<p>Bay, N04191, was there. So N04205 asked Lorne Berg.</p>')).toContain('Lorne ask')
  })
  it('is no name in a month, a place, or at the beginning of a sentence where it is a word', () => {
    const may: TracedPerson = { ...(roster[2] as TracedPerson), id: '9', given: 'May', family: 'Will' }
    const search = traceSearch(searchedFor([may]))
    const text = '<p>In May we meet. May 5 is late. Will it rain? The May tide.</p>'
    const parts = [{ part: 'body:', file: null, segments: markupSegments(text), canWrite: true }]
    search.look(tracedThing, { parts, isTable: false })
    expect(search.result().traces).toEqual([])
  })
  it('of somebody who is here now too wants an answer, in full as well', async () => {
    const { traces } = await page('<p>Halvard Ness</p>', searchedFor(roster, { alsoHere: new Set(['6']) }))
    expect(traces[0]).toMatchObject({ isAlsoHere: true, proposed: null, weight: 'ask' })
  })
})

/** A page once all that was found in it is decided alike. */
async function redacted(html: string, does: TraceAnswer): Promise<string> {
  const looked = await page(html)
  const open = looked.traces.filter(({ weight }) => weight !== 'doubtful')
  return textOf(looked.redacted(decidedAll(open, does)))
}
describe('taking a trace out', () => {
  it('edits what was found and nothing else: a word that is excused stays', async () => {
    const html = '<p>The tides of the Bay of Fundy are high. Will Bay measured them. Later Bay said so.</p>'
    const looked = await page(html)
    expect(looked.traces.map(({ text, proposed }) => [text, proposed])).toEqual([
      ['Will Bay', 'role'],
      ['Bay', 'role'],
    ])
    expect(textOf(looked.redacted({}))).toBe(
      '<p>The tides of the Bay of Fundy are high. A student measured them. Later a student said so.</p>',
    )
  })
  it('leaves all else letter for letter, whatever marks stand within the name', async () => {
    expect(await redacted('<p class=x>Ask Niamh <b>O’Car</b>row&nbsp;first.</p>', 'role')).toBe(
      '<p class=x>Ask a student<b></b>&nbsp;first.</p>',
    )
    expect(await redacted('<p>Zo&euml; Tarrant-M&uuml;ller wrote.</p>', 'role')).toBe(
      '<p>A student wrote.</p>',
    )
    expect(await redacted('<p>x</p><!-- N04198 -->', 'remove')).toBe('<p>x</p><!-- -->')
    expect(await redacted('<p>Two  blanks  stay. Will Bay  went.</p>', 'remove')).toBe(
      '<p>Two  blanks  stay.  went.</p>',
    )
  })
  it('takes a link to a student away, and its words stay', async () => {
    expect(await redacted('<a class="k" href="mailto:w.bay@port-ellery.example">write</a>', 'remove')).toBe(
      '<a class="k" >write</a>',
    )
  })
  it.each([
    ['Will Bay came. Then Will Bay went.', 'A student came. Then a student went.'],
    ['This is the Will Bay of last term.', 'This is a student of last term.'],
    ['We read Will Bay’s notes.', 'We read a student’s notes.'],
    ['We read Halvard Ness’ notes.', 'We read a student’s notes.'],
    ['We asked Ms. Will Bay about it.', 'We asked a student about it.'],
    ['Ask The Will Bay we know.', 'Ask A student we know.'],
  ])('says “a student” with its article, capital and possessive right: %s', async (before, after) => {
    expect(await redacted(`<p>${before}</p>`, 'role')).toBe(`<p>${after}</p>`)
  })
  it.each(['Ask my Will Bay.', 'The young Will Bay wrote.', 'See Will Bay-like notes.', 'Dear Will Bay'])(
    'asks where “a student” would not read right: %s',
    async text => {
      expect((await page(`<p>${text}</p>`)).traces.map(trace => trace.proposed)).toEqual([null])
    },
  )
  it('proposes no English words in a text of another language, and offers them', async () => {
    const french =
      'Les marées de la baie sont les plus hautes du monde, et nous les avons mesurées chaque jour avec une perche. '.repeat(
        6,
      )
    const { traces } = await page(`<p>${french} Will Bay les a vues, et w.bay@port-ellery.example aussi.</p>`)
    expect(traces.map(({ text, proposed, can }) => [text, proposed, can.includes('role')])).toEqual([
      ['Will Bay', null, true],
      ['w.bay@port-ellery.example', 'remove', true],
    ])
  })
  it('takes a student’s key out of settings with all that stands under it', () => {
    const settings = {
      timeLimit: 20,
      extra: { 'lt-2026-05': 2, all: 1 },
      to: ['N04198', 'office'],
      note: 'ask Will Bay',
      N04198: 'x',
      address: 'https://example.org/u/%20Quist%2C%20Anna%20Maria/log',
    }
    const traces = inParts(jsonParts(settings, 'settings'))
    const edits = editsByThing(traces, decidedAll(traces, 'remove')).get(tracedThing.on) ?? new Map()
    const left = redactedJson(settings, edits, 'settings') as typeof settings
    expect(left).toEqual({
      timeLimit: 20,
      extra: { all: 1 },
      to: ['office'],
      note: 'ask',
      address: 'https://example.org/u/%20/log',
    })
    // RFC 7396: null takes a name away.
    expect(mergePatch(settings, left)).toMatchObject({
      extra: { 'lt-2026-05': null },
      to: ['office'],
      note: 'ask',
      N04198: null,
    })
  })
  it('never keeps a student’s identifier in settings, whatever a plan says', () => {
    const [trace] = inParts(jsonParts({ to: 'N04198' }, 'settings'))
    if (!trace) throw new Error('nothing found')
    expect(trace.can).toEqual(['remove'])
    const keep = { does: 'keep' as const, because: 'somebody wants it', by: '' }
    expect(decisionOf(trace, { [trace.id]: keep })).toBeNull()
    expect(answerOf(trace, { [trace.id]: keep })).toBe('remove')
    expect(answerOf(trace, { [trace.wordId]: keep })).toBe('remove')
  })
  it('is of titles what was found in them', () => {
    const marin: TracedPerson = { ...(roster[2] as TracedPerson), id: '9', given: 'Ana', family: 'Marin' }
    const title = 'Marine charts, with thanks to Marin'
    const search = traceSearch(searchedFor([marin]))
    search.look({ ...tracedThing, title }, { parts: [linePart('title', title)], isTable: false })
    const { traces } = search.result()
    const edits = editsByThing(traces, decidedAll(traces, 'remove')).get(tracedThing.on)
    expect(redactedLine(title, edits, titlePart)).toBe('Marine charts, with thanks to')
  })
})

/** Names that are words as well, and some that are not. */
const names = [
  ['Will', 'Bay'],
  ['Rose', 'Marin'],
  ['May', 'Ng'],
  ['Li', 'May'],
  ['Bay', 'Li'],
  ['Perpetua', 'Will'],
] as const
const people = names.map(([given, family], at): TracedPerson => ({
  id: String(at),
  given,
  middle: null,
  family,
  nickname: null,
  email: `${given}.${family}@port-ellery.example`.toLowerCase(),
  key: `st-${at}-77`,
  number: `N0300${at}`,
  userName: null,
  phones: [],
}))
const anyHtml = fc
  .array(
    fc.oneof(
      fc.constantFrom(
        ...names.flat(),
        ...names.map(name => name.join(' ')),
        'N03001',
        'will.bay@port-ellery.example',
      ),
      fc.constantFrom(
        'the',
        'The',
        'a',
        'Ms.',
        'marine',
        'rosebay',
        'will',
        'may',
        'bay',
        'in',
        'wrote.',
        '’s',
        '(',
        ')',
        ',',
        '.',
      ),
      fc.constantFrom(
        '<p>',
        '</p>',
        '<b>',
        '</b>',
        '<!--',
        '-->',
        '<br>',
        '&amp;',
        '&nbsp;',
        '<a title="',
        '<a href="',
        '">',
        '\u00ad',
        '\u200b',
        '  ',
      ),
      fc.string({ maxLength: 6 }),
    ),
    { maxLength: 24 },
  )
  .chain(parts => fc.constantFrom(' ', '', '  ').map(between => parts.join(between)))
const anyAnswers = fc.array(fc.constantFrom<TraceAnswer>('remove', 'role', 'keep'), {
  minLength: 30,
  maxLength: 30,
})
const decidedAs = (traces: readonly Trace[], answers: readonly TraceAnswer[]): TraceDecisions =>
  Object.fromEntries(
    traces.map(({ id }, at) => [
      id,
      { does: answers[at % answers.length] ?? 'remove', because: 'x', by: '' },
    ]),
  )
describe('whatever a page is, and whatever is decided', () => {
  it('no letter changes outside the stretches that were shown, and what was taken out is found no more', async () => {
    await fc.assert(
      fc.asyncProperty(anyHtml, anyAnswers, async (html, answers) => {
        const looked = await page(html, searchedFor(people))
        const decisions = decidedAs(looked.traces, answers)
        const after = textOf(looked.redacted(decisions))
        const edits = editsByThing(looked.traces, decisions).get(tracedThing.on)?.get('body:') ?? []
        expect(isEditedOnlyThere(html, after, edits)).toBe(true)
        // What is shown before and after a trace is what stands there.
        for (const { before, text, after: rest, edits: ways } of looked.traces) {
          expect(ways.remove.lead).toBeLessThanOrEqual(before.length)
          expect(ways.remove.tail).toBeLessThanOrEqual(rest.length)
          expect(text).not.toBe('')
        }
      }),
      { numRuns: 400 },
    )
  })
  it('each trace has a key of its own, and the same one when it is looked for again', async () => {
    await fc.assert(
      fc.asyncProperty(anyHtml, async html => {
        const ids = async () => (await page(html, searchedFor(people))).traces.map(({ id }) => id)
        const first = await ids()
        expect(new Set(first).size).toBe(first.length)
        expect(await ids()).toEqual(first)
      }),
      { numRuns: 100 },
    )
  })
  it('a comparison sees a letter that changed elsewhere', () => {
    const edits = [{ from: 4, to: 8, text: 'a student' }]
    expect(isEditedOnlyThere('ask Bay! now', 'ask a student now', edits)).toBe(true)
    expect(isEditedOnlyThere('ask Bay! now', 'ask a student  now', edits)).toBe(false)
    expect(isEditedOnlyThere('ask Bay! now', 'ask a student no', edits)).toBe(false)
    expect(isEditedOnlyThere('ask Bay! now', 'asd a student now', edits)).toBe(false)
  })
  it('a decision that an older plan made of a word holds for each place of it, and one of a place for that alone', async () => {
    const { traces } = await page('<p>Ask Halvard. Then Halvard wrote.</p>')
    const [first, second] = traces
    if (!first || !second) throw new Error('two are there')
    const keep = { does: 'keep' as const, because: 'he agreed', by: '' }
    const older = { [wordIdOf(tracedThing.on, 'text', 'Halvard')]: keep }
    expect([answerOf(first, older), answerOf(second, older)]).toEqual(['keep', 'keep'])
    const both = { ...older, [second.id]: { ...keep, does: 'remove' as const } }
    expect([answerOf(first, both), answerOf(second, both)]).toEqual(['keep', 'remove'])
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
    ['names without end', 'Will '.repeat(times / 4)],
    ['names in small letters without end', 'quist '.repeat(times / 4)],
    ['digits without end', '1 2-3.'.repeat(times / 4)],
    ['words run together without end', 'aB1'.repeat(times)],
    ['escapes without end', `<script>${'\\u00e'.repeat(times)}</script>`],
  ])('is gone through like any other: %s', async (_, html) => {
    expect((await page(html)).traces.filter(trace => trace.weight === 'sure')).toEqual([])
  })
  it('that names students without end is told as one', async () => {
    const { traces } = await page('<p>Will Bay, N04205.</p>'.repeat(2000))
    expect(traces.map(({ count, kinds, proposed }) => [count, kinds, proposed])).toEqual([
      [4000, { name: 2000, number: 2000 }, null],
    ])
  })
})

describe('words', () => {
  it('are compared without case, marks and letters that nobody sees', () => {
    for (const [a, b] of [
      ['ZOË', 'zoe\u0308'],
      ['Straße', 'STRASSE'],
      ['Øystein', 'oystein'],
      ['Łukasz', 'lukasz'],
      ['Şebnem', 'sebnem'],
      ['Per\u00adpe\u200btua', 'perpetua'],
    ] as const)
      expect(folded(a)).toBe(folded(b))
  })
})
