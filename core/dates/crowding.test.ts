import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { wall } from '../../tests/support/wall'
import { dayOf, isoOf, wallOf } from '../calendar/day'
import { termCalendar } from '../calendar/schema'
import { compileTerm } from '../calendar/term'
import {
  crowdedIn,
  loadByWeek,
  outOfOrder,
  proposeEase,
  usualCrowding,
  type CrowdItem,
  type Crowding,
} from './crowding'

const term = compileTerm(
  termCalendar.parse({
    timeZone: 'America/Halifax',
    classes: { from: '2027-01-06', to: '2027-04-13' },
    exams: { from: '2027-04-15', to: '2027-04-24' },
  }),
)
const item = (id: string, due: string | null, more: Partial<CrowdItem> = {}): CrowdItem => ({
  id,
  kind: 'assignment',
  exam: false,
  due: due === null ? null : wall(`${due}T23:59`),
  held: false,
  ...more,
})
const limits = (more: Partial<Crowding>): Crowding => ({ ...usualCrowding, ...more })
const four = ['a', 'b', 'c', 'd'].map(id => item(id, '2027-02-05'))

describe('what is crowded', () => {
  it('days by the number of items, weeks by their weight; what weighs nothing does not count', () => {
    const items = [
      ...four,
      item('q', '2027-02-03', { kind: 'quiz' }),
      item('p', '2027-02-05', { kind: 'page' }),
    ]
    const crowding = limits({ perDay: 3, perWeek: 8, weights: { assignment: 2, page: 0 } })
    const { days, weeks } = crowdedIn(items, crowding, term)
    expect(days.map(load => [isoOf(load.first), load.ids.length])).toEqual([['2027-02-05', 4]])
    expect(weeks.map(load => [isoOf(load.first), load.weight])).toEqual([['2027-02-01', 9]])
    expect(crowdedIn(items, { ...crowding, perDay: null, perWeek: 9 }, term)).toEqual({ days: [], weeks: [] })
  })
})

describe('easing a plan', () => {
  const moves = (items: CrowdItem[], more: Partial<Crowding> = {}) => {
    const proposal = proposeEase(items, limits(more), term, [])
    return proposal.solved
      ? proposal.moves.map(({ id, to, cost }) => [id, isoOf(to), cost])
      : proposal.conflict.message
  }
  it('moves no more than it must, the lightest of what may go', () => {
    expect(moves(four)).toEqual([['a', '2027-02-04', 1]])
    // A heavier first item makes room by the last one, though its next usable day is three days off.
    expect(
      moves([item('a', '2027-02-05', { kind: 'quiz' }), ...four.slice(1)], { weights: { quiz: 9 } }),
    ).toEqual([['d', '2027-02-08', 3]])
  })
  it('what is held stays, and so does what is due in the exams or weighs nothing', () => {
    expect(moves([{ ...four[0]!, held: true }, ...four.slice(1)])).toEqual([['d', '2027-02-08', 3]])
    const exams = ['w', 'x', 'y', 'z'].map(id => item(id, '2027-04-16'))
    expect(moves([...exams, ...four], { weights: { assignment: 0 } })).toEqual([])
    expect(moves(exams)).toEqual([])
  })
  it('says so where too much is held on one day', () => {
    expect(moves(four.map(each => ({ ...each, held: true })))).toBe(
      'Too much is held around Fri 5 Feb. Let one of those dates go, or allow more on a day.',
    )
  })
  it('afterwards no day within classes has more than the limit, order and total stay, and what is held has not moved', () => {
    const anyItem = fc.record({
      day: fc.constantFrom(...term.classDays),
      held: fc.boolean(),
      kind: fc.constantFrom('quiz', 'assignment'),
    })
    fc.assert(
      fc.property(fc.array(anyItem, { maxLength: 25 }), fc.integer({ min: 1, max: 3 }), (made, perDay) => {
        const items = made.map(({ day, held, kind }, at) => ({
          ...item(String(at), null, { held, kind }),
          due: wallOf(day, 1439),
        }))
        const proposal = proposeEase(items, limits({ perDay }), term, [])
        const heldCount = loadByWeek(
          items.filter(each => each.held),
          limits({}),
          { weekStart: 1 },
        )
        if (!proposal.solved) {
          expect(heldCount.size).toBeGreaterThan(0)
          return
        }
        const to = new Map(proposal.moves.map(move => [move.id, move.to]))
        const after = items.map(each => {
          const day = to.get(each.id)
          return day === undefined ? each : { ...each, due: wallOf(day, 1439) }
        })
        expect(crowdedIn(after, limits({ perDay }), term).days).toEqual([])
        expect(items.filter(each => each.held && to.has(each.id))).toEqual([])
        const inOrder = [...items].sort((a, b) => dayOf(a.due) - dayOf(b.due)).map(each => each.id)
        const dueOf = new Map(after.map(each => [each.id, each.due]))
        const dues = inOrder.map(id => dueOf.get(id)!)
        expect(dues).toEqual([...dues].sort())
      }),
      { numRuns: 60 },
    )
  })
})

describe('what crosses', () => {
  const pair = (before: string, after: string) => ({ before, after })
  it('one that is moved far is out of order, not all that it passes', () => {
    const far = pair('b', 'z')
    expect([...outOfOrder([pair('a', 'a'), far, pair('c', 'c'), pair('d', 'd')])]).toEqual([far])
  })
  it('the rest never goes back, and no smaller number would do', () => {
    const anyPair = fc.record({
      before: fc.constantFrom('a', 'b', 'c', 'd'),
      after: fc.constantFrom('1', '2', '3'),
    })
    const goesBack = (pairs: { before: string; after: string }[]): boolean =>
      pairs.some(one => pairs.some(two => one.before < two.before && one.after > two.after))
    fc.assert(
      fc.property(fc.array(anyPair, { maxLength: 8 }), pairs => {
        const out = outOfOrder(pairs)
        expect(goesBack(pairs.filter(each => !out.has(each)))).toBe(false)
        const fewest = Array.from({ length: 2 ** pairs.length }, (_, mask) =>
          pairs.filter((_, at) => !(mask & (1 << at))),
        )
          .filter(kept => !goesBack(kept))
          .map(kept => pairs.length - kept.length)
        expect(out.size).toBe(Math.min(...fewest))
      }),
    )
  })
})
