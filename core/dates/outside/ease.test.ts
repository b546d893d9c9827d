import fc from 'fast-check'
import loadHighs from 'highs'
import { describe, expect, it } from 'vitest'
import { ease, type EaseItem, type EaseLimits } from '../ease'

interface Instance {
  items: EaseItem[]
  limits: EaseLimits
}
const instance = (most: number, dayCount: number): fc.Arbitrary<Instance> =>
  fc
    .record({
      items: fc.array(
        fc.record({
          due: fc.integer({ min: -3, max: dayCount * 2 }),
          major: fc.boolean(),
          weight: fc.constantFrom(1, 1, 1, 2, 0.5, 3),
        }),
        { minLength: 1, maxLength: most },
      ),
      days: fc.uniqueArray(fc.integer({ min: 0, max: dayCount * 2 }), { minLength: 1, maxLength: dayCount }),
      perDay: fc.constantFrom(1, 2, 3, null),
      minGap: fc.integer({ min: 0, max: 5 }),
    })
    .map(({ items, days, perDay, minGap }) => ({
      items: items.map((item, at) => ({ id: `i${at}`, ...item })),
      limits: { days: days.sort((a, b) => a - b), perDay, minGap },
    }))

/** The same problem as an integer programme in the CPLEX LP format: x_i_k is 1 where item i is due on day k. */
function programme({ items, limits }: Instance): string {
  const { days, perDay, minGap } = limits
  const x = (i: number, k: number): string => `x_${i}_${k}`
  const when = (i: number, sign = '+'): string =>
    days.map((day, k) => `${sign} ${day + 1} ${x(i, k)}`).join('\n ')
  const later = (i: number, j: number, gap: number): string => `${when(j)}\n ${when(i, '-')} >= ${gap}`
  const majors = items.flatMap((item, i) => (item.major ? [i] : []))
  return [
    'Minimize',
    ` cost: ${items.flatMap((item, i) => days.map((day, k) => `+ ${(item.weight ?? 1) * Math.abs(day - item.due)} ${x(i, k)}`)).join('\n ')}`,
    'Subject To',
    ...items.map((_, i) => ` one_${i}: ${days.map((_, k) => `+ ${x(i, k)}`).join(' ')} = 1`),
    ...items.slice(1).map((_, i) => ` order_${i}: ${later(i, i + 1, 0)}`),
    ...(perDay === null
      ? []
      : days.map((_, k) => ` cap_${k}: ${items.map((_, i) => `+ ${x(i, k)}`).join(' ')} <= ${perDay}`)),
    ...majors.slice(1).map((j, at) => ` gap_${at}: ${later(majors[at]!, j, minGap)}`),
    'Binary',
    ` ${items.flatMap((_, i) => days.map((_, k) => x(i, k))).join('\n ')}`,
    'End',
  ].join('\n')
}

/** Solves with HiGHS; where its presolve gives up on a programme, once more without it. */
async function optimum(lp: string): Promise<{ Status: string; ObjectiveValue: number }> {
  try {
    return (solver ??= await loadHighs()).solve(lp, { output_flag: false })
  } catch {
    solver = await loadHighs()
    return solver.solve(lp, { output_flag: false, presolve: 'off' })
  }
}
let solver: Awaited<ReturnType<typeof loadHighs>> | undefined

describe('ease, against HiGHS', () => {
  it('costs the same on 500 random instances, and has no solution where there is none', async () => {
    let solved = 0
    for (const each of fc.sample(instance(7, 9), { numRuns: 500, seed: 20270105 })) {
      const result = await optimum(programme(each))
      const ours = ease(each.items, each.limits)
      expect([ours.solved, JSON.stringify(each)]).toEqual([result.Status === 'Optimal', JSON.stringify(each)])
      if (!ours.solved) continue
      solved++
      expect([Math.round(ours.cost * 10_000), JSON.stringify(each)]).toEqual([
        Math.round(result.ObjectiveValue * 10_000),
        JSON.stringify(each),
      ])
    }
    // Both answers must have been met often.
    expect(solved).toBeGreaterThan(150)
    expect(solved).toBeLessThan(450)
  }, 120_000)
})

/** Every assignment, tried in order of its dates: the first of the cheapest is the one wanted. */
function byTrying({ items, limits }: Instance): { due: number[]; cost: number } | null {
  let best: { due: number[]; cost: number } | null = null
  const cost = (due: number[]): number =>
    due.reduce((sum, day, i) => sum + (items[i]!.weight ?? 1) * Math.abs(day - items[i]!.due), 0)
  const walk = (due: number[]): void => {
    const i = due.length
    if (i === items.length) {
      if (!best || cost(due) < best.cost - 1e-9) best = { due, cost: cost(due) }
      return
    }
    const last = due.findLastIndex((_, at) => items[at]!.major)
    for (const day of limits.days) {
      if (i > 0 && day < due[i - 1]!) continue
      if (limits.perDay !== null && due.filter(each => each === day).length >= limits.perDay) continue
      if (items[i]!.major && last >= 0 && day - due[last]! < limits.minGap) continue
      walk([...due, day])
    }
  }
  walk([])
  return best
}

describe('ease', () => {
  it('among the best finds the earliest dates, item by item, as trying everything does', () => {
    fc.assert(
      fc.property(instance(5, 5), each => {
        const [ours, tried] = [ease(each.items, each.limits), byTrying(each)]
        expect(ours.solved && ours.due).toEqual(tried ? tried.due : false)
      }),
      { numRuns: 400 },
    )
  })
  it('leaves a plan that is good as it is, and gives a reason for every date it moves', () => {
    fc.assert(
      fc.property(instance(6, 8), ({ items, limits }) => {
        const once = ease(items, limits)
        if (!once.solved) return
        const again = ease(
          items.map((item, at) => ({ ...item, due: once.due[at]! })),
          limits,
        )
        expect(again).toMatchObject({ solved: true, due: once.due, cost: 0 })
        expect([...once.reasons.keys()]).toEqual(
          items.filter((item, at) => item.due !== once.due[at]).map(item => item.id),
        )
      }),
    )
  })
  it('says which constraint cannot hold, and what would', () => {
    const items = (n: number, major = false): EaseItem[] =>
      Array.from({ length: n }, (_, i) => ({ id: `i${i}`, due: 0, major }))
    const why = (list: EaseItem[], limits: EaseLimits) => {
      const eased = ease(list, limits)
      return eased.solved ? null : eased.conflict
    }
    expect(why(items(2), { days: [], perDay: null, minGap: 0 })).toMatchObject({ constraint: 'days' })
    expect(why(items(9), { days: [0, 1, 2], perDay: 2, minGap: 0 })).toEqual({
      constraint: 'perDay',
      message: '9 items at 2 a day need 5 days, and there are 3. It would go with 3 a day.',
      couldBe: { perDay: 3, minGap: null },
    })
    expect(why(items(3, true), { days: [0, 4, 8], perDay: null, minGap: 5 })).toMatchObject({
      constraint: 'minGap',
      couldBe: { perDay: null, minGap: 4 },
    })
    const both = [
      { id: 'a', due: 0, major: true },
      { id: 'b', due: 0 },
      { id: 'c', due: 0, major: true },
      { id: 'd', due: 0 },
    ]
    expect(why(both, { days: [0, 1], perDay: 2, minGap: 1 })).toBeNull()
    expect(
      why([...both.slice(0, 3), { id: 'e', due: 0 }, { id: 'd', due: 0 }], {
        days: [0, 1, 2],
        perDay: 2,
        minGap: 2,
      }),
    ).toMatchObject({ constraint: 'together', couldBe: { perDay: 3, minGap: 1 } })
    expect(() => ease(items(1), { days: [0], perDay: 0, minGap: 0 })).toThrow(RangeError)
  })
})
