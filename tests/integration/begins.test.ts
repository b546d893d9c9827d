import { describe, expect, it } from 'vitest'
import { effectOf } from '../../server/runs/effect'
import { readPlan } from '../../server/plans/plans'
import { startAwaited, startPlan } from '../../server/plans/start'
import { useDemo } from '../support/demo'

const demo = useDemo('begins')
const me = () => demo.people.marchetti
const dated = async (id: string) => {
  const { document, begunWith } = await readPlan(demo.db, me(), id)
  return { method: document.dates.rule.method, better: begunWith?.better, how: begunWith?.how }
}

describe('with which way of moving dates a plan begins', () => {
  it('thirteen weeks into seven: with the better one, and it says what the usual one would leave', async () => {
    const id = await startAwaited(demo.db, me(), {
      sources: [demo.courses.old],
      term: '2027-summer',
      mode: 'roll',
    })
    const { method, better, how } = await dated(id)
    expect(how).toBe('recommended')
    expect(better).toMatchObject({ method, instead: { method: 'keep-week' } })
    const { effect } = await effectOf(demo.db, id)
    // What it says that it leaves is what Run then counts, of those that come.
    expect(effect.settle.dates).toBe(better?.settles)
    expect(better!.instead.settles).toBeGreaterThanOrEqual(better!.settles + 10)
  })
  it('as many weeks into as many: week by week, as people expect', async () => {
    const { old, empty } = demo.courses
    const id = await startPlan(demo.db, me(), { sources: [old], target: empty })
    expect(await dated(id)).toEqual({ method: 'keep-week', better: undefined, how: 'recommended' })
  })
})
