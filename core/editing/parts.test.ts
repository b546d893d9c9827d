import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { springTerm } from '../../tests/support/worked-case'
import {
  changeFault,
  changesOf,
  editedParts,
  isOfDates,
  joinedChanges,
  undoneChanges,
  type Parts,
  type Thing,
  type ThingChange,
} from './parts'
import { editText } from './words'

const thing = (lineage: string, parts: Parts = {}, more: Partial<Thing> = {}): Thing => ({
  lineage,
  type: 'item',
  kind: 'assignment',
  parent: null,
  fixed: false,
  ...more,
  parts: { title: lineage, state: 'visible', ...parts },
})
const byKey = (...things: Thing[]): Map<string, Thing> => new Map(things.map(each => [each.lineage, each]))
/** The things as they stand after some changes. */
const after = (things: ReadonlyMap<string, Thing>, changes: readonly ThingChange[]): Map<string, Thing> => {
  const of = new Map(changes.map(change => [change.lineage, change.after]))
  return byKey(
    ...[...things.values()].map(each => ({ ...each, parts: { ...each.parts, ...of.get(each.lineage) } })),
  )
}
const values: fc.Arbitrary<Parts> = fc.record(
  {
    title: fc.constantFrom('a', 'b', 'c'),
    due: fc.constantFrom(null, '2027-01-15T23:59', '2027-02-05T23:59') as fc.Arbitrary<Parts['due'] & string>,
    points: fc.constantFrom(null, 0, 100_000),
    state: fc.constantFrom('visible' as const, 'hidden' as const, 'listed' as const),
    attempts: fc.constantFrom(null, '1', '3'),
  },
  { requiredKeys: [] },
)

describe('an edit', () => {
  it('changes only what is not so already, and of a unit only what a unit has', () => {
    const things = byKey(thing('a', { points: 100_000 }), thing('u', {}, { type: 'unit', kind: null }))
    expect(
      changesOf(things, {
        a: { points: 100_000, due: null },
        u: { due: '2027-01-15T23:59', state: 'hidden' } as Parts,
      }),
    ).toEqual([{ lineage: 'u', before: { state: 'visible' }, after: { state: 'hidden' } }])
  })
  it('is taken back exactly where nothing came since, whatever it changed', () => {
    fc.assert(
      fc.property(values, values, (stands, wanted) => {
        const things = byKey(thing('x', stands))
        const changes = changesOf(things, { x: wanted })
        const { back, overtaken } = undoneChanges(changes, after(things, changes))
        expect(overtaken).toBe(0)
        const again = after(after(things, changes), back).get('x')?.parts
        for (const part of editedParts)
          expect(again?.[part] ?? null).toBe(things.get('x')?.parts[part] ?? null)
      }),
    )
  })
  it('that a later one overtook puts back what that did not touch, and nothing else', () => {
    const things = byKey(thing('a', { points: 100_000 }), thing('b'))
    const first = changesOf(things, { a: { points: 200_000, title: 'A' }, b: { title: 'B' } })
    const then = after(things, first)
    const second = changesOf(then, { a: { points: 300_000 } })
    const { back, overtaken } = undoneChanges(first, after(then, second))
    expect(overtaken).toBe(1)
    expect(back).toEqual([
      { lineage: 'a', before: { title: 'A' }, after: { title: 'a' } },
      { lineage: 'b', before: { title: 'B' }, after: { title: 'b' } },
    ])
    expect(undoneChanges(second, byKey())).toEqual({ back: [], overtaken: 1 })
  })
  it('joined with the next of the same thing is one, and none where it came back', () => {
    fc.assert(
      fc.property(values, values, values, (stands, one, two) => {
        const things = byKey(thing('x', stands))
        const first = changesOf(things, { x: one })
        const second = changesOf(after(things, first), { x: two })
        fc.pre(first.length > 0 && second.length > 0)
        const joined = joinedChanges(first, second)
        expect(joined).not.toBeNull()
        const end = after(after(things, first), second)
        expect(after(things, joined ?? []).get('x')?.parts).toEqual(
          expect.objectContaining(
            Object.fromEntries(joined?.flatMap(each => Object.entries(each.after)) ?? []),
          ),
        )
        expect(undoneChanges(joined ?? [], end).overtaken).toBe(0)
      }),
    )
    const change = (lineage: string): ThingChange[] => [
      { lineage, before: { title: 'a' }, after: { title: 'b' } },
    ]
    expect(joinedChanges(change('x'), change('y'))).toBeNull()
    expect(
      joinedChanges(change('x'), [{ lineage: 'x', before: { title: 'b' }, after: { title: 'a' } }]),
    ).toEqual([])
  })
  it('is refused at the part: far years, points below 0, what is gone, what the institution fixes', () => {
    const known = { term: springTerm(), categories: new Set(['labs']), periods: new Set(['First half']) }
    const fault = (after: Parts, more: Partial<Thing> = {}) =>
      changeFault({ lineage: 'a', before: {}, after }, byKey(thing('a', {}, more)), known)
    expect(
      fault({ due: '2027-02-05T23:59' as never, points: 0, category: 'labs', period: 'First half' }),
    ).toBeNull()
    expect(fault({ due: '2047-02-05T23:59' as never })).toMatchObject({ part: 'due' })
    expect(fault({ points: -1 })).toMatchObject({ part: 'points', message: 'Points cannot be below 0.' })
    expect(fault({ category: 'gone' })).toMatchObject({ part: 'category' })
    expect(fault({ period: 'Third half' })).toMatchObject({ part: 'period' })
    expect(fault({ title: 'Mine' }, { fixed: true })).toMatchObject({ part: 'title' })
    expect(fault({ due: '2027-02-05T23:59' as never }, { fixed: true })).toBeNull()
    expect(isOfDates({ lineage: 'a', before: {}, after: { due: null, opens: null } })).toBe(true)
    expect(isOfDates({ lineage: 'a', before: {}, after: { due: null, points: null } })).toBe(false)
  })
})

describe('the words of an edit', () => {
  const names = { years: { from: 2027, to: 2027 }, categoryTitle: () => 'Lab sheets' }
  const said = (before: Parts, after: Parts, count = 1): string =>
    editText(
      Array.from({ length: count }, (_, at) => ({ lineage: `x${at}`, before, after })),
      byKey(thing('x0', { title: 'Lab sheet 1' })),
      names,
    )
  it.each<[Parts, Parts, string]>([
    [{ title: 'A' }, { title: 'B' }, 'renamed “A” to “B”'],
    [
      { due: null },
      { due: '2027-01-15T23:59' as never },
      'set the due date of “Lab sheet 1” to Fri 15 Jan 23:59',
    ],
    [{ opens: '2027-01-15T23:59' as never }, { opens: null }, 'took the opening off “Lab sheet 1”'],
    [
      { due: null },
      { due: '2028-01-14T23:59' as never },
      'set the due date of “Lab sheet 1” to Fri 14 Jan 2028 23:59',
    ],
    [{ points: null }, { points: 250_000 }, 'gave “Lab sheet 1” 25 points'],
    [{ points: 1 }, { points: null }, 'took the points off “Lab sheet 1”'],
    [{ category: null }, { category: 'k' }, 'put “Lab sheet 1” into the category “Lab sheets”'],
    [{ period: 'a' }, { period: null }, 'took “Lab sheet 1” out of its grading period'],
    [{ state: 'visible' }, { state: 'hidden' }, 'hid “Lab sheet 1”'],
    [{ state: 'visible' }, { state: 'deleted' }, 'removed “Lab sheet 1”'],
    [{ state: 'deleted' }, { state: 'visible' }, 'brought “Lab sheet 1” back'],
    [{ attempts: null }, { attempts: '3' }, 'set attempts of “Lab sheet 1” to 3'],
    [{ attempts: '3', points: 1 }, { attempts: '2', points: 2 }, 'changed points, attempts of “Lab sheet 1”'],
  ])('%j %j', (before, after, words) => expect(said(before, after)).toBe(words))
  it('of many things count them', () =>
    expect(said({ due: null }, { due: '2027-01-15T23:59' as never }, 6)).toBe(
      'changed due dates of 6 things',
    ))
})
