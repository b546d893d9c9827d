import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inCourseOrder, type OutlineNode } from '../../course/outline'
import * as outline from '../../../tests/support/outline'
import { ledgerOf, written, type Wanted, type World } from '../../../tests/support/carry-world'
import { partValuesOf, thingParts } from '../again'
import type { CarriedBase } from '../base'
import { placeChoices, type PlaceChoice } from '../decisions'
import { basesAfter, changedSince } from './bases-after'
import { losesHere, writesSource, type PlaceRow } from './row'
import { textHere } from '../texts'

const { unit, item } = outline
const place = (lineage: string, given: Partial<OutlineNode> = {}) =>
  item(lineage, { holds: [given.kind ?? 'page'], madeBy: 'template', ...given })
const asTemplate = (node: OutlineNode): CarriedBase => ({
  source: node.lineage,
  lineage: node.lineage,
  type: node.type,
  how: 'template',
  parts: partValuesOf(node, { ...node, dates: node }),
})
const told = (rows: readonly PlaceRow[]) =>
  rows.map(
    ({ source, shell, happens, settle, lineage }) =>
      `${source?.lineage ?? '–'} ${happens}${settle ? '?' : ''} ${shell?.lineage ?? '–'} → ${lineage ?? '–'}`,
  )
const empty: World = { shell: [], bases: [] }

describe('what happens at the places of a shell', () => {
  const source = inCourseOrder([
    unit('u', { title: 'Bearings' }),
    item('syllabus', { parent: 'u', title: 'Syllabus', body: 'a', size: 1 }),
    item('howto', { parent: 'u', position: 1, title: 'How to write a log' }),
    item('safety', { parent: 'u', position: 2, title: 'Safety' }),
    item('reach', { parent: 'u', position: 3, title: 'How to reach us' }),
    item('survey', { parent: 'u', position: 4, title: 'Welcome survey', kind: 'quiz' }),
    unit('u2', { position: 1, title: 'Harmonics' }),
    item('set', { parent: 'u2', title: 'Problem set', kind: 'assignment' }),
  ])
  const template = inCourseOrder([
    unit('start', { title: 'Start here', madeBy: 'template' }),
    item('t-syllabus', { parent: 'start', title: 'Syllabus', body: 'b', size: 1, madeBy: 'template' }),
    item('t-safety', { parent: 'start', position: 1, title: 'Safety', fixed: true }),
    place('card', { parent: 'start', position: 2, title: 'How to reach us' }),
    place('video', { parent: 'start', position: 3, title: 'Welcome video', holds: ['recording'] }),
    item('mine', { parent: 'start', position: 4, title: 'Welcome survey', kind: 'quiz' }),
  ])
  const world: World = {
    shell: template,
    bases: template.filter(node => node.madeBy === 'template').map(asTemplate),
  }
  const paired = { pairs: { u: 'start' } }

  it('is proposed so that nothing is lost unasked', () => {
    expect(told(ledgerOf(world, source, { decisions: paired }))).toEqual([
      'u joins start → start',
      'syllabus replaces t-syllabus → t-syllabus',
      'safety fixed t-safety → t-safety',
      'reach fills card → card',
      '– unfilled video → –',
      '– stays mine → mine',
      'survey both? – → survey',
      'howto adds – → howto',
      'u2 adds – → u2',
      'set adds – → set',
    ])
  })
  it('follows what a person chose, and keeps a template’s page that somebody touched', () => {
    const touched = {
      ...world,
      shell: world.shell.map(n => (n.lineage === 't-syllabus' ? { ...n, title: 'Syllabus!' } : n)),
    }
    const decisions = {
      ...paired,
      choices: { survey: 'replace', reach: 'keep' } as const,
      shell: { video: 'stay' } as const,
      at: 'head' as const,
    }
    expect(told(ledgerOf(touched, source, { decisions, chosen: { leave: ['howto'], take: [] } }))).toEqual([
      'u2 adds – → u2',
      'set adds – → set',
      'u joins start → start',
      'howto left – → –',
      '– stays t-syllabus → t-syllabus',
      'syllabus both? – → syllabus',
      'safety fixed t-safety → t-safety',
      'reach unfilled card → –',
      '– stays video → video',
      'survey replaces mine → mine',
    ])
  })
  it('puts a thing first in its unit where one says so, and after another; a place that is not there moves nothing', () => {
    const order = (after: Record<string, string | null>): string[] =>
      ledgerOf(empty, source, { decisions: { after } }).flatMap(({ parent, position, lineage }) =>
        parent === 'u' ? [`${position} ${lineage}`] : [],
      )
    const rest = ['syllabus', 'howto', 'safety', 'reach', 'survey']
    const inOrder = (...keys: string[]) => keys.map((key, at) => `${at} ${key}`)
    expect(order({})).toEqual(inOrder(...rest))
    expect(order({ reach: null })).toEqual(inOrder('reach', 'syllabus', 'howto', 'safety', 'survey'))
    expect(order({ syllabus: 'safety' })).toEqual(inOrder('howto', 'safety', 'syllabus', 'reach', 'survey'))
    expect(order({ reach: 'gone' })).toEqual(inOrder(...rest))
    expect(order({ gone: 'syllabus' })).toEqual(inOrder(...rest))
    expect(order({ gone: null, reach: null })).toEqual(
      inOrder('reach', 'syllabus', 'howto', 'safety', 'survey'),
    )
  })
  it('is remembered for the next run: under which key, in which way, and what the run made of it', () => {
    const bases = (ledger: readonly PlaceRow[], made?: Parameters<typeof basesAfter>[2]) =>
      Object.fromEntries(
        basesAfter(ledger, world.bases, made).map(({ source: key, lineage, how, wrote }) => [
          key,
          [lineage, how, wrote],
        ]),
      )
    const rows = ledgerOf(world, source, { decisions: paired, chosen: { leave: ['howto'], take: [] } })
    const made = { texts: new Map([['syllabus', 'hash']]), settings: new Map<string, string>() }
    expect(bases(rows, made)).toMatchObject({
      u: ['start', 'kept', null],
      syllabus: ['t-syllabus', 'carried', 'hash'],
      safety: ['t-safety', 'kept', null],
      reach: ['card', 'carried', null],
      survey: ['survey', 'carried', null],
      howto: ['howto', 'left', null],
    })
    expect(bases(rows).syllabus).toEqual(['t-syllabus', 'carried', null])
  })
  it('moves a thing into another unit where one says so, and never removes a unit that still holds something', () => {
    const rows = ledgerOf(world, source, {
      decisions: { into: { set: 'start' }, shell: { start: 'remove', mine: 'remove' } },
      chosen: { leave: ['u', 'syllabus', 'howto', 'safety', 'reach', 'survey'], take: [] },
    })
    expect(rows.find(row => row.key === 'set')).toMatchObject({ parent: 'start', depth: 1 })
    expect(rows.find(row => row.key === 'start')?.happens).toBe('stays')
    expect(rows.find(row => row.key === 'mine')?.happens).toBe('removes')
  })
})

describe('a second run', () => {
  const source = inCourseOrder([
    unit('u'),
    item('a', { parent: 'u', body: 'a1', size: 1, points: 10 }),
    item('b', { parent: 'u', position: 1, body: 'b1', size: 1 }),
    item('c', { parent: 'u', position: 2, body: 'c1', size: 1 }),
  ])
  const changed = (nodes: readonly OutlineNode[], lineage: string, change: Partial<OutlineNode>) =>
    inCourseOrder(nodes.map(node => (node.lineage === lineage ? { ...node, ...change } : node)))
  const first = written(empty, ledgerOf(empty, source))

  it('brings what changed in the source, keeps what changed here, and asks where both did', () => {
    let there = changed(first.shell, 'b', { title: 'B, mine' })
    there = changed(there, 'c', { body: 'c-here', title: 'C, mine' })
    let now = changed(source, 'a', { points: 20, title: 'A, new' })
    now = changed(now, 'c', { body: 'c-source' })
    now = inCourseOrder([...now, item('d', { parent: 'u', position: 3 })])
    const rows = ledgerOf({ ...first, shell: there }, now)
    expect(told(rows)).toEqual([
      'u there u → u',
      'a again a → a',
      'b there b → b',
      'c there? c → c',
      'd adds – → d',
    ])
    const parts = (lineage: string) =>
      rows.find(row => row.key === lineage)?.parts.map(part => `${part.part} ${part.outcome} ${part.takes}`)
    expect(parts('a')).toEqual(['title source true', 'points source true'])
    expect(parts('b')).toEqual(['title here false'])
    expect(parts('c')).toEqual(['title here false', 'text both false'])
  })
  it('leaves away what was removed here, and offers to remove what is gone from the source and untouched', () => {
    const without = first.shell.filter(node => node.lineage !== 'a')
    expect(told(ledgerOf({ ...first, shell: without }, source))[0]).toBe('u there u → u')
    expect(told(ledgerOf({ ...first, shell: without }, source)).at(-1)).toBe('a away – → –')
    const rows = ledgerOf(
      first,
      source.filter(node => node.lineage !== 'b'),
    )
    expect(rows.find(row => row.key === 'b')).toMatchObject({ happens: 'stays', isGone: true })
    const touched = changed(first.shell, 'b', { title: 'mine' })
    expect(
      ledgerOf(
        { ...first, shell: touched },
        source.filter(node => node.lineage !== 'b'),
      ).find(row => row.key === 'b')?.isGone,
    ).toBe(false)
  })
  it('goes by what it wrote itself: settings that were given are no change, and given others they come', () => {
    const given = { a: '{"attempts":"3"}' }
    const one = written(empty, ledgerOf(empty, source, { given }))
    const row = (rows: readonly PlaceRow[]) => rows.find(({ key }) => key === 'a')
    expect(row(ledgerOf(one, source, { given }))).toMatchObject({ happens: 'there', parts: [] })
    // As another leaves them, they are a change of the shell's.
    const touched = changed(one.shell, 'a', { settings: 'by hand' })
    expect(row(ledgerOf({ ...one, shell: touched }, source, { given }))?.parts).toMatchObject([
      { part: 'settings', outcome: 'here', takes: false },
    ])
    expect(row(ledgerOf(one, source, { given: { a: '{"help":"notes"}' } }))?.parts).toMatchObject([
      { part: 'settings', outcome: 'source', takes: true },
    ])
    // Remembered after a run that wrote nothing, too.
    const bases = basesAfter(ledgerOf(one, source, { given }), one.bases)
    expect(bases.find(base => base.source === 'a')?.wroteSettings).toBe(
      one.bases.find(base => base.source === 'a')?.wroteSettings,
    )
    expect(bases.filter(base => 'wroteSettings' in base).map(base => base.source)).toEqual(['a'])
  })
  it('tells of what stays away whether the source changed since', () => {
    const one = written(empty, ledgerOf(empty, source))
    const without = { ...one, shell: one.shell.filter(({ lineage }) => lineage !== 'a') }
    const told = (sources: readonly OutlineNode[], bases = one.bases) => {
      const row = ledgerOf(without, sources).find(({ source: of }) => of?.lineage === 'a')
      return (
        row &&
        changedSince(
          bases.find(base => base.source === 'a'),
          row,
        )
      )
    }
    expect(told(source)).toBe(false)
    expect(told(changed(source, 'a', { title: 'A, new' }))).toBe(true)
    expect(told(changed(source, 'a', { title: 'A, new' }), [])).toBe(false)
  })
  it('takes the chosen passages of two pages only', () => {
    let there = changed(first.shell, 'a', { body: 'a-here', isHtml: true })
    const now = changed(source, 'a', { body: 'a-source', isHtml: true })
    const passages = { a: { source: 'a-source', shell: 'a-here', takes: [0], both: [] } }
    const text = () =>
      ledgerOf({ ...first, shell: there }, now, { decisions: { passages } }).find(row => row.key === 'a')
        ?.text
    expect(text()?.passages).toEqual(passages.a)
    there = changed(there, 'a', { isHtml: false })
    expect(text()).toBeNull()
  })
  it('brings a unit weeks later, with what was left before, once one asks', () => {
    const chosen = { leave: ['c'], take: [] }
    const one = written(empty, ledgerOf(empty, source, { chosen }))
    expect(told(ledgerOf(one, source)).at(-1)).toBe('c left – → –')
    const rows = ledgerOf(one, source, { chosen: { leave: [], take: ['c'] } })
    expect(told(rows).at(-1)).toBe('c adds – → c')
  })
})

// Small courses over few titles and bodies, so that things meet in every way.
const anyThing = fc.record({
  title: fc.constantFrom('Tides', 'Waves', 'Log'),
  body: fc.constantFrom('a', 'b', 'c'),
  kind: fc.constantFrom('page' as const, 'quiz' as const),
  points: fc.option(fc.constantFrom(1, 2)),
  isPlace: fc.boolean(),
  fixed: fc.boolean(),
  isTemplate: fc.boolean(),
})
const anyCourse = (prefix: string) =>
  fc.array(fc.array(anyThing, { maxLength: 4 }), { minLength: 1, maxLength: 3 }).map(units =>
    inCourseOrder(
      units.flatMap((things, at) => [
        unit(`${prefix}${at}`, { position: at, title: `Week ${at + 1}: Part` }),
        ...things.map(({ isPlace, fixed, isTemplate, ...given }, n) =>
          item(`${prefix}${at}-${n}`, {
            ...given,
            size: 1,
            isHtml: given.kind === 'page',
            parent: `${prefix}${at}`,
            position: n,
            ...(prefix === 's' && isPlace && { holds: [given.kind], body: null, size: 0, isHtml: false }),
            ...(prefix === 's' && {
              fixed,
              madeBy: isTemplate ? ('template' as const) : ('person' as const),
            }),
          }),
        ),
      ]),
    ),
  )
const anyWorld = anyCourse('s').map((shell): World => ({
  shell,
  bases: shell.filter(node => node.madeBy === 'template').map(asTemplate),
}))
const choiceNames = Object.keys(placeChoices) as PlaceChoice[]
const anyWish = (sources: readonly OutlineNode[], { shell }: World) => {
  const lineages = sources.map(node => node.lineage)
  const choices = fc.dictionary(fc.constantFrom(...lineages), fc.constantFrom(...choiceNames))
  const removals = fc.dictionary(
    fc.constantFrom(...shell.map(node => node.lineage)),
    fc.constantFrom('remove' as const, 'stay' as const),
  )
  const end = fc.constantFrom('head' as const, 'foot' as const)
  const any = fc.constantFrom(...lineages)
  return fc.record({
    chosen: fc.record({ leave: fc.subarray(lineages), take: fc.constant([]) }),
    decisions: fc.record({
      choices,
      shell: removals,
      at: end,
      ends: fc.dictionary(fc.constantFrom(...shell.map(node => node.lineage)), end),
      titles: fc.dictionary(any, fc.constantFrom('Named', 'Week 9')),
      headings: fc.dictionary(
        any,
        fc.record({ title: fc.constantFrom('Ebb', 'Flood'), nth: fc.constant(0) }),
      ),
      further: fc.dictionary(any, fc.uniqueArray(any, { minLength: 1, maxLength: 3 })),
      questions: fc.dictionary(
        any,
        fc.record({ body: fc.constant('b0'), takes: fc.uniqueArray(fc.nat(3), { maxLength: 2 }) }),
      ),
      after: fc.dictionary(any, fc.option(any)),
    }),
    frames: fc.subarray(lineages),
    given: fc.dictionary(any, fc.constantFrom('{"attempts":"3"}', '{"help":"notes"}')),
    titles: fc.dictionary(any, fc.constant('Notes of a student')),
    redacts: fc.dictionary(any, fc.constantFrom('trace role', 'trace remove')),
  })
}
/** What remains of some decisions for another run into the same shell (`again` of the parts of a plan). */
const again = ({
  decisions,
  frames,
  given,
  titles: clean,
  redacts,
}: Required<Omit<Wanted, 'chosen'>>): Wanted => {
  const { titles, headings, further, questions } = decisions
  return {
    frames,
    given,
    titles: clean,
    redacts,
    decisions: {
      ...(titles && { titles }),
      ...(headings && { headings }),
      ...(further && { further }),
      ...(questions && { questions }),
    },
  }
}
const anyRoll = fc
  .tuple(anyCourse('c'), anyWorld)
  .chain(([sources, world]) => fc.tuple(fc.constant(sources), fc.constant(world), anyWish(sources, world)))
/** A change that somebody makes to a thing of a course: its title, its text or its points. */
const anyEdits = fc.array(fc.tuple(fc.nat(), fc.constantFrom('title', 'body', 'points'), fc.nat()), {
  maxLength: 4,
})
const edited = (nodes: readonly OutlineNode[], edits: readonly (readonly [number, string, number])[]) =>
  edits.reduce((all, [n, part, value]) => {
    const at = all.length === 0 ? -1 : n % all.length
    return all.map((node, index) =>
      index === at && !node.holds && (part === 'title' || node.type === 'item')
        ? { ...node, [part]: part === 'points' ? value : `edited ${value}` }
        : node,
    )
  }, nodes)

describe('whatever is chosen', () => {
  it('everything of the sources and of the shell stands in just one row, and each row of the shell to be under a key of its own', () => {
    fc.assert(
      fc.property(anyRoll, fc.infiniteStream(fc.nat()), ([sources, world, wish], numbers) => {
        // Whatever goes into whichever unit, itself and what stands below it among them.
        const units = [...sources, ...world.shell].filter(node => node.type === 'unit')
        const unitAt = (n: number): string | null => units[n % (units.length + 1)]?.lineage ?? null
        const movers = sources.filter(() => numbers.next().value % 3 === 0)
        const into = Object.fromEntries(movers.map(node => [node.lineage, unitAt(numbers.next().value)]))
        const rows = ledgerOf(world, sources, { ...wish, decisions: { ...wish.decisions, into } })
        const keys = (side: 'source' | 'shell') => rows.flatMap(row => row[side]?.lineage ?? [])
        expect(keys('source').sort()).toEqual(sources.map(node => node.lineage).sort())
        expect(keys('shell').sort()).toEqual(world.shell.map(node => node.lineage).sort())
        const there = rows.flatMap(row => row.lineage ?? [])
        expect(new Set(there).size).toBe(there.length)
        // Whatever will be there stands in something that will be there.
        for (const { parent } of rows.filter(row => row.lineage !== null))
          if (parent !== null) expect(there).toContain(parent)
      }),
    )
  })
  it('nothing of the shell goes or is overwritten that is not in the list shown before consent; what is fixed stays as it is', () => {
    fc.assert(
      fc.property(anyRoll, ([sources, world, wish]) => {
        const rows = ledgerOf(world, sources, wish)
        const listed = new Set(rows.filter(losesHere).flatMap(row => row.shell?.lineage ?? []))
        const filled = new Set(
          rows.filter(row => row.happens === 'fills').flatMap(row => row.shell?.lineage ?? []),
        )
        const after = new Map(written(world, rows).shell.map(node => [node.lineage, node]))
        for (const was of world.shell) {
          if (listed.has(was.lineage) || filled.has(was.lineage)) continue
          const { title, body, points, state } = was
          expect(after.get(was.lineage)).toMatchObject({ title, body, points, state })
        }
        for (const was of world.shell.filter(node => node.fixed && !node.holds))
          expect(listed).not.toContain(was.lineage)
      }),
    )
  })
  it('a second run with nothing changed in between proposes nothing', () => {
    fc.assert(
      fc.property(anyRoll, ([sources, world, wish]) => {
        const once = written(world, ledgerOf(world, sources, wish))
        const rows = ledgerOf(once, sources, again(wish))
        expect(rows.filter(row => writesSource(row) || row.settle).map(row => told([row])[0])).toEqual([])
        expect(rows.filter(losesHere).filter(row => row.happens !== 'unfilled')).toEqual([])
      }),
    )
  })
  it('after edits on both sides no part that was changed here is written, unless it is chosen', () => {
    fc.assert(
      fc.property(anyRoll, anyEdits, anyEdits, ([sources, world, wish], there, here) => {
        const once = written(world, ledgerOf(world, sources, wish))
        const shell = edited(once.shell, here)
        const decided = again(wish)
        const rows = ledgerOf({ ...once, shell }, edited(sources, there), decided)
        for (const row of rows) {
          if (!row.shell || row.happens !== 'again') continue
          const base = once.bases.find(
            ({ how, source }) => how !== 'template' && source === row.source?.lineage,
          )
          const is = partValuesOf(row.shell, { ...row.shell, dates: row.shell })
          const here = { ...is, text: base && is.text !== null ? textHere(base, is.text) : is.text }
          for (const { part, takes } of row.parts) if (takes) expect(here[part]).toBe(base?.parts[part])
        }
        // Seen and declined: it is not asked again until the source changes.
        const twice = written({ ...once, shell }, rows)
        const third = ledgerOf(twice, edited(sources, there), decided)
        expect(third.filter(row => row.happens === 'again' || row.parts.some(part => part.settle))).toEqual(
          [],
        )
      }),
    )
  })
  it('replaced, kept, or both: that accounts for every clash with something of the shell that is not fixed', () => {
    fc.assert(
      fc.property(anyRoll, ([sources, world, wish]) => {
        const left = new Set(wish.chosen.leave)
        const clashes = ledgerOf(world, sources, wish).filter(({ source, match }) => {
          const met = world.shell.find(node => node.lineage === match?.shell)
          return source?.type === 'item' && !left.has(source.lineage) && met && !met.holds && !met.fixed
        })
        for (const { happens, source, settle } of clashes) {
          expect(['replaces', 'kept', 'both']).toContain(happens)
          const choice = wish.decisions.choices[source?.lineage ?? '']
          if (choice)
            expect([choice, settle]).toEqual([
              { replaces: 'replace', kept: 'keep', both: 'both' }[happens as 'both'],
              false,
            ])
        }
      }),
    )
  })
  it('choosing all and leaving some is choosing the rest', () => {
    fc.assert(
      fc.property(anyRoll, ([sources, world, { chosen }]) => {
        const left = new Set(chosen.leave)
        const rest = ledgerOf(
          world,
          sources.filter(node => !left.has(node.lineage) && !hasLeft(sources, node, left)),
        )
        const come = (rows: readonly PlaceRow[]) =>
          rows
            .filter(
              row => row.source?.type === 'item' && !['left', 'unfilled', 'removes'].includes(row.happens),
            )
            .map(row => row.source?.lineage)
            .sort()
        expect(come(ledgerOf(world, sources, { chosen }))).toEqual(come(rest))
      }),
    )
  })
})
function hasLeft(nodes: readonly OutlineNode[], node: OutlineNode, left: ReadonlySet<string>): boolean {
  const over = nodes.find(other => other.lineage === node.parent)
  return over !== undefined && over.type === 'item' && (left.has(over.lineage) || hasLeft(nodes, over, left))
}
it('every part of a thing is looked at', () => {
  const node = item('x', { parent: 'u', body: 'b', size: 1 })
  expect(Object.keys(partValuesOf(node, { ...node, dates: node }))).toEqual([...thingParts])
})
