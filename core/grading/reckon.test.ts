import { readdirSync, readFileSync } from 'node:fs'
import fc from 'fast-check'
import Reference from 'fraction.js'
import { describe, expect, it } from 'vitest'
import { reckon } from './reckon'
import { readGradeCase, type GradeCase } from './scheme'
import { largestRemainder } from './weights'
import { decimal, decimalText, fraction } from './fraction'

const folder = new URL('../../tests/cases/grades/', import.meta.url)
const readCase = (value: unknown): GradeCase => {
  const read = readGradeCase(value)
  if ('fault' in read) throw new Error(`${read.fault.field}: ${read.fault.message}`)
  return read.case
}
const faultOf = (value: unknown): string => {
  const read = readGradeCase(value)
  return 'fault' in read ? read.fault.field : 'none'
}

describe('the worked cases of grades', () => {
  for (const name of readdirSync(folder))
    it(name, () => {
      const { case: given, expected } = JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as {
        case: unknown
        expected: { conflict: unknown }
      }
      const told = reckon(readCase(given))
      // Of a conflict only whether there is one is laid down.
      expect({ ...told, conflict: told.conflict !== null }).toEqual({
        ...expected,
        conflict: expected.conflict !== null,
      })
    })
})

describe('largest remainder', () => {
  it('gives out seats as the worked example has it that textbooks of apportionment print (Hare quota; from memory)', () => {
    const votes = [47_000, 16_000, 15_800, 12_000, 6_100, 3_100].map(count => fraction(BigInt(count)))
    expect(largestRemainder(10n, votes)).toEqual([5n, 2n, 1n, 1n, 1n, 0n])
  })
  // Balinski and Young, Fair Representation (1982): the census of 1790 and Hamilton's bill for a House of 120; the figures from memory,
  // their sum is the 3,615,920 that is printed there.
  it('gives the fifteen states of 1792 the seats of Hamilton’s bill', () => {
    const states: Record<string, [people: number, seats: number]> = {
      Virginia: [630_560, 21],
      Massachusetts: [475_327, 16],
      Pennsylvania: [432_879, 14],
      'North Carolina': [353_523, 12],
      'New York': [331_589, 11],
      Maryland: [278_514, 9],
      Connecticut: [236_841, 8],
      'South Carolina': [206_236, 7],
      'New Jersey': [179_570, 6],
      'New Hampshire': [141_822, 5],
      Vermont: [85_533, 3],
      Georgia: [70_835, 2],
      Kentucky: [68_705, 2],
      'Rhode Island': [68_446, 2],
      Delaware: [55_540, 2],
    }
    const people = Object.values(states).map(([count]) => count)
    expect(people.reduce((all, each) => all + each, 0)).toBe(3_615_920)
    const shares = people.map(count => fraction(BigInt(count)))
    expect(largestRemainder(120n, shares)).toEqual(Object.values(states).map(([, seats]) => BigInt(seats)))
  })
  it('makes the sum exactly, none further than a unit from its part, whatever the weights', () => {
    const weight = fc
      .integer({ min: 0, max: 1_000_000 })
      .map(n => decimalText(fraction(BigInt(n), 10_000n), 4))
    fc.assert(
      fc.property(fc.array(weight, { minLength: 1, maxLength: 12 }), fc.boolean(), (weights, equal) => {
        const categories = weights.map((each, at) => ({ key: `k${at}`, weight: each }))
        const { sum, conflict, ...told } = reckon(
          readCase({ scheme: { categories }, rescale: { to: '100', equal } }),
        )
        expect([sum, conflict]).toEqual(['100.00', null])
        const total = weights.reduce((all, each) => all + Number(each), 0)
        for (const [at, each] of told.weights.entries()) {
          const part = equal || total === 0 ? 100 / weights.length : (Number(weights[at]) * 100) / total
          expect(Math.abs(Number(each.weight) - part)).toBeLessThanOrEqual(0.0100001)
        }
      }),
    )
  })
})

/** Categories of one item out of 100 each, and what one student has in them. */
const oneEach = (weights: readonly string[], scores: readonly string[]) => ({
  scheme: {
    categories: weights.map((weight, at) => ({ key: `k${at}`, weight })),
    items: weights.map((_, at) => ({ id: `i${at}`, category: `k${at}`, max: '100' })),
  },
  students: [{ id: 's', scores: Object.fromEntries(scores.map((score, at) => [`i${at}`, score])) }],
})

describe('results', () => {
  // The Python Standard Library, release 3.11, statistics.fmean: its worked example of a course whose quizzes and homework count 20 % each,
  // midterm and final 30 % each.
  it('are those of the gradebook that the Python library reference works out', () => {
    const [told] = reckon(readCase(oneEach(['20', '20', '30', '30'], ['85', '92', '83', '91']))).students
    expect(told?.result).toBe('87.60')
  })
  it('are exactly those of fraction.js, whatever the weights and scores', () => {
    const cent = (most: number) => fc.integer({ min: 0, max: most * 100 }).map(n => (n / 100).toFixed(2))
    const category = fc.record({
      weight: cent(100),
      within: fc.constantFrom('points' as const, 'equal' as const),
      items: fc.array(fc.record({ max: fc.integer({ min: 1, max: 60 }), score: fc.option(cent(80)) }), {
        minLength: 1,
        maxLength: 4,
      }),
    })
    fc.assert(
      fc.property(
        fc.array(category, { minLength: 1, maxLength: 5 }),
        fc.constantFrom('skip', 'zero'),
        (all, ungraded) => {
          const items = all.flatMap((each, c) =>
            each.items.map(({ max, score }, at) => ({
              id: `i${c}-${at}`,
              category: `k${c}`,
              max: String(max),
              score,
            })),
          )
          const [told] = reckon(
            readCase({
              scheme: {
                ungraded,
                decimals: 4,
                categories: all.map(({ weight, within }, c) => ({ key: `k${c}`, weight, within })),
                items: items.map(({ score: _, ...item }) => item),
              },
              students: [{ id: 's', scores: Object.fromEntries(items.map(({ id, score }) => [id, score])) }],
            }),
          ).students
          const add = (parts: readonly Reference[]): Reference =>
            parts.reduce((a, b) => a.add(b), new Reference(0))
          const results = all.flatMap(({ weight, within, items: own }) => {
            const graded = own
              .filter(({ score }) => ungraded === 'zero' || score !== null)
              .map(({ max, score }) => [new Reference(score ?? '0'), new Reference(max)] as const)
            if (graded.length === 0) return []
            const result =
              within === 'points'
                ? add(graded.map(([score]) => score)).div(add(graded.map(([, max]) => max)))
                : add(graded.map(([score, max]) => score.div(max))).div(graded.length)
            return [{ weight: new Reference(weight), result }]
          })
          const whole = add(results.map(({ weight }) => weight))
          const expected = whole.equals(0)
            ? null
            : add(results.map(({ weight, result }) => weight.mul(result)))
                .div(whole)
                .mul(100)
          // Half up, by the reference's own rounding of ten-thousandths.
          expect(told?.result ?? null).toBe(
            expected && expected.mul(10_000).add(1, 2).floor().div(10_000).valueOf().toFixed(4),
          )
        },
      ),
    )
  })
  it('come near what floating point makes of the same rules, for any gradebook of points', () => {
    const gradebook = fc.array(fc.tuple(fc.integer({ min: 1, max: 200 }), fc.integer({ min: 0, max: 200 })), {
      minLength: 1,
      maxLength: 15,
    })
    fc.assert(
      fc.property(gradebook, fc.nat(3), (rows, dropLowest) => {
        const items = rows.map(([max], at) => ({ id: `i${at}`, category: 'c', max: String(max) }))
        const scores = Object.fromEntries(rows.map(([, score], at) => [`i${at}`, String(score)]))
        const categories = [{ key: 'c', weight: '100', dropLowest }]
        const [told] = reckon(
          readCase({ scheme: { categories, items, decimals: 6 }, students: [{ id: 's', scores }] }),
        ).students
        const kept = rows
          .map(([max, score], at) => ({ max, score, at }))
          .sort((a, b) => a.score * b.max - b.score * a.max || b.at - a.at)
          .slice(Math.min(dropLowest, rows.length - 1))
        const expected =
          (kept.reduce((all, row) => all + row.score, 0) / kept.reduce((all, row) => all + row.max, 0)) * 100
        expect(Number(told?.result)).toBeCloseTo(expected, 5)
        expect(told?.dropped).toHaveLength(rows.length - kept.length)
      }),
    )
  })
  it('are rounded half up where they are written, and the letter goes by that', () => {
    const scheme = {
      decimals: 0,
      categories: [{ key: 'c', weight: '1' }],
      items: [{ id: 'i', category: 'c', max: '200' }],
      scale: [
        { from: '80', letter: 'A' },
        { from: '0', letter: 'F' },
      ],
    }
    const [told] = reckon(readCase({ scheme, students: [{ id: 's', scores: { i: '159' } }] })).students
    expect([told?.result, told?.letter]).toEqual(['80', 'A'])
  })
})

describe('a bad case', () => {
  const base = (change: (scheme: Record<string, unknown>) => void, more: object = {}) => {
    const scheme: Record<string, unknown> = {
      categories: [
        { key: 'a', weight: '50' },
        { key: 'b', weight: '50.005' },
      ],
      items: [
        { id: 'i', category: 'a', max: '10' },
        { id: 'j', category: 'b', max: '10' },
      ],
    }
    change(scheme)
    return { scheme, ...more }
  }
  const none = (): void => {}
  it.each([
    ['none', base(none)],
    [
      'scheme.items[1].max',
      base(
        scheme =>
          (scheme.items = [
            { id: 'i', category: 'a', max: '1' },
            { id: 'j', category: 'a', max: '0' },
          ]),
      ),
    ],
    ['scheme.items[0].max', base(scheme => (scheme.items = [{ id: 'i', category: 'a', max: '-1' }]))],
    ['scheme.items[0].max', base(scheme => (scheme.items = [{ id: 'i', category: 'a', max: '1.00001' }]))],
    ['scheme.items[0].category', base(scheme => (scheme.items = [{ id: 'i', category: 'c', max: '1' }]))],
    [
      'scheme.items[1].id',
      base(
        scheme =>
          (scheme.items = [
            { id: 'i', category: 'a', max: '1' },
            { id: 'i', category: 'a', max: '1' },
          ]),
      ),
    ],
    [
      'scheme.categories[1].key',
      base(
        scheme =>
          (scheme.categories = [
            { key: 'a', weight: '1' },
            { key: 'a', weight: '1' },
          ]),
      ),
    ],
    ['scheme.categories[0].weight', base(scheme => (scheme.categories = [{ key: 'a' }]))],
    [
      'scheme.scale[1].from',
      base(
        scheme =>
          (scheme.scale = [
            { from: '50', letter: 'A' },
            { from: '50', letter: 'F' },
          ]),
      ),
    ],
    ['scheme.scale[0].from', base(scheme => (scheme.scale = [{ from: '50', letter: 'A' }]))],
    ['rescale.hold[0]', base(none, { rescale: { to: '100', hold: ['c'] } })],
    ['rescale.to', base(none, { rescale: { to: '100.001' } })],
    ['scheme.categories[1].weight', base(none, { rescale: { to: '100', hold: ['b'] } })],
    ['students[0].scores.x', base(none, { students: [{ id: 's', scores: { x: '1' } }] })],
    ['students[0].scores.i', base(none, { students: [{ id: 's', scores: { i: 'late' } }] })],
    ['students[1].id', base(none, { students: [{ id: 's' }, { id: 's' }] })],
  ])('names its field: %s', (field, value) => expect(faultOf(value)).toBe(field))
  it('decimal text has no sign, no exponent and no blanks', () => {
    for (const text of ['', '-1', '+1', '1e3', ' 1', '1.', '.5', '1,5']) expect(decimal(text)).toBeNull()
  })
})
