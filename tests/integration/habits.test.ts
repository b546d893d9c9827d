import { describe, expect, it } from 'vitest'
import { present } from '../../core/present'
import { recommendedPlan, withHabit } from '../../core/plan/document'
import {
  changeHabit,
  forgetHabit,
  habitsForPlan,
  keepHabit,
  keepableOf,
  listHabits,
} from '../../server/habits/habits'
import { readPlan } from '../../server/plans/plans'
import { startPlan } from '../../server/plans/start'
import { makeCourse } from '../../server/shells/shells'
import { atOnce } from '../support/at-once'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'

const demo = useDemo('habits')
const rolls = useRolls(demo, () => demo.people.marchetti)
let made = 0
const shell = async (code = `HAB ${++made}`): Promise<string> => {
  const names = { term: '2027-spring', code, section: '', title: `Habits ${code}` }
  return (await makeCourse(demo.db, demo.people.marchetti, names)).id
}
/** A run of the demo's course into a new shell, with something decided about one item and about all. */
async function ran(code?: string): Promise<{ run: string; target: string }> {
  const target = await shell(code)
  const plan = await rolls.planned([demo.courses.old], target, ({ carry }) => ({
    carry: { ...carry, arrive: 'hidden', take: [announcement] },
    names: { title: 'Habits of this term', label: null },
  }))
  return { run: await rolls.run(plan), target }
}
const announcement = '01999999-0000-7000-8000-00000000000a'
const begun = (sources: [string], target: string) =>
  startPlan(demo.db, demo.people.marchetti, { sources, target, decisions: 'as-before' }).then(plan =>
    readPlan(demo.db, demo.people.marchetti, plan),
  )
const keep = (run: string, name: string, usual = false) =>
  keepHabit(demo.db, demo.people.marchetti, run, { name, department: null, usual })

describe('a habit', () => {
  it('that plans begin with is what the fast road takes; last term’s decisions come next, then the department’s', async () => {
    const first = await ran()
    expect((await begun([first.target], await shell())).begunWith).toEqual({ how: 'as-before', habit: null })
    expect((await begun([demo.courses.old], await shell())).begunWith?.how).toBe('recommended')
    const { id } = await keep(first.run, 'Labs', true)
    const own = await begun([demo.courses.old], await shell())
    expect(own.begunWith).toEqual({ how: 'habit', habit: 'Labs' })
    expect(own.document.carry.arrive).toBe('hidden')
    // What is about one shell is not remembered: its title is its own, its windows are the new term's.
    expect(own.document.names.title).toBeNull()
    expect(own.document.windows).not.toBeNull()
    await changeHabit(demo.db, demo.people.marchetti, id, { usual: false })
    const department = present((await keepableOf(demo.db, demo.people.ellwood, first.run)).departments[0])
    await keepHabit(demo.db, demo.people.ellwood, first.run, {
      name: 'As the department does',
      department: department.id,
      usual: true,
    })
    expect((await begun([demo.courses.old], await shell())).begunWith).toEqual({
      how: 'habit',
      habit: 'As the department does',
    })
    expect((await begun([first.target], await shell())).begunWith?.how).toBe('as-before')
  })
  it('decides about single things only for the course that it was kept from', async () => {
    const { run, target } = await ran('HYD 240')
    await keep(run, 'Tides')
    const same = await startPlan(demo.db, demo.people.marchetti, {
      sources: [demo.courses.old],
      target: await shell(),
    })
    const inSame = present(
      (await habitsForPlan(demo.db, demo.people.marchetti, same)).habits.find(({ name }) => name === 'Tides'),
    )
    expect(inSame.document.carry.take).toEqual([announcement])
    expect(inSame.leavesOut).toBe(0)
    expect(inSame.from).toMatchObject({ code: 'HYD 240' })
    const source = await shell('WVG 999')
    const elsewhere = await startPlan(demo.db, demo.people.marchetti, { sources: [source], target })
    const inOther = present(
      (await habitsForPlan(demo.db, demo.people.marchetti, elsewhere)).habits.find(
        ({ name }) => name === 'Tides',
      ),
    )
    expect(inOther.document.carry).toMatchObject({ arrive: 'hidden', take: [] })
    expect(inOther.leavesOut).toBe(1)
    expect(withHabit(recommendedPlan(), inOther.document).carry.arrive).toBe('hidden')
  })
  it('of a department is kept only by those whose duty reaches it, and names no item', async () => {
    const { run } = await ran()
    expect((await keepableOf(demo.db, demo.people.marchetti, run)).departments).toEqual([])
    const [department] = (await keepableOf(demo.db, demo.people.ellwood, run)).departments
    const wish = { name: 'Ours', department: present(department).id, usual: false }
    await expect(keepHabit(demo.db, demo.people.marchetti, run, wish)).rejects.toMatchObject({
      code: 'not-your-department',
    })
    const { id } = await keepHabit(demo.db, demo.people.ellwood, run, wish)
    const shown = (await listHabits(demo.db, demo.people.marchetti)).habits.find(habit => habit.id === id)
    expect(shown).toMatchObject({ name: 'Ours', may: { edit: false } })
    expect(shown?.decides).toEqual(['Items arrive hidden.', 'The whole course: Same week and weekday.'])
    await expect(forgetHabit(demo.db, demo.people.marchetti, id)).rejects.toMatchObject({ code: 'not-found' })
  })
  it('asked for twenty times at once is kept once; of one owner one at most is begun with', async () => {
    const { run } = await ran()
    const { done, refused } = await atOnce(() => keep(run, 'Once', true))
    expect([done.length, refused]).toEqual([1, ['habit-name-taken']])
    const { id } = await keep(run, 'Twice')
    await Promise.all(
      [id, present(done[0]).id].map(each =>
        changeHabit(demo.db, demo.people.marchetti, each, { usual: true }),
      ),
    )
    const usual = (await listHabits(demo.db, demo.people.marchetti)).habits.filter(
      habit => habit.isUsual && habit.department === null,
    )
    expect(usual).toHaveLength(1)
    await forgetHabit(demo.db, demo.people.marchetti, id)
    expect(
      (await demo.db('log').where('action', 'like', 'habit.%').orderBy('id', 'desc').first())?.action,
    ).toBe('habit.deleted')
  })
})
