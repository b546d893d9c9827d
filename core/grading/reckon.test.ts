import { readdirSync, readFileSync } from 'node:fs'
import fc from 'fast-check'
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

describe('results', () => {
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
