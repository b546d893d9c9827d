import { describe, expect, it } from 'vitest'
import { asHabit, habitTold, recommendedPlan, withHabit, type PlanDocument } from './document'
import { ruleBy } from '../dates/rule'

const item = '01999999-0000-7000-8000-000000000001'
const other = '01999999-0000-7000-8000-000000000002'
const plain = recommendedPlan()
/** Decisions of every part, as somebody may have made them in a run. */
const decided: PlanDocument = {
  ...plain,
  carry: {
    ...plain.carry,
    leave: [item],
    arrive: 'hidden',
    frameKinds: { quiz: true },
    frames: { [item]: true },
    modes: { into: 'online' },
  },
  dates: {
    ...plain.dates,
    rule: ruleBy('meetings'),
    kindRules: { quiz: ruleBy('none') },
    itemRules: { [item]: ruleBy('set', { opens: null, due: '2027-02-01T23:59', closes: null }) },
  },
  places: { ...plain.places, at: 'head', pairs: { [item]: other } },
  clearing: { ...plain.clearing, kinds: { visits: 'keep' }, people: { [other]: 'clear' } },
  names: { title: 'Tidal Hydrography, Spring', label: 'Mon 10:00' },
  grades: { ...plain.grades, order: [item] },
}

describe('a habit', () => {
  it('keeps what holds for another term, and nothing of one shell, one calendar or one item by hand', () => {
    const habit = asHabit(decided)
    expect(habit.carry).toMatchObject({ leave: [item], arrive: 'hidden', frames: {}, modes: {} })
    expect(habit.dates.rule.method).toBe('meetings')
    expect(habit.dates.itemRules).toEqual({})
    expect(habit.places).toEqual({ ...plain.places, at: 'head' })
    expect(habit.clearing).toEqual({ ...plain.clearing, kinds: { visits: 'keep' } })
    expect([habit.names, habit.windows, habit.grades]).toEqual([plain.names, plain.windows, plain.grades])
    // What was kept is kept again just so, and is what a new plan begins with.
    expect(asHabit(habit)).toEqual(habit)
    expect(withHabit(plain, habit)).toEqual(habit)
  })
  it('laid over a plan leaves there what was decided about its own shell and calendar', () => {
    const held = ruleBy('set', { opens: null, due: '2028-02-07T23:59', closes: null })
    const own: PlanDocument = {
      ...plain,
      names: { title: 'Tides', label: null },
      carry: { ...plain.carry, settings: { [other]: { attempts: '2' } } },
      dates: { ...plain.dates, itemRules: { [other]: held } },
      places: { ...plain.places, pairs: { [other]: null } },
    }
    const after = withHabit(own, asHabit(decided))
    expect(after.names).toEqual(own.names)
    expect(after.carry).toMatchObject({ arrive: 'hidden', settings: own.carry.settings })
    expect(after.dates.itemRules).toEqual({ [other]: held })
    expect(after.places).toMatchObject({ at: 'head', pairs: { [other]: null } })
  })
  it('tells what it decides in sentences, and what it cannot know', () => {
    expect(habitTold(asHabit(plain)).decides).toEqual(['The whole course: Same week and weekday.'])
    const { decides, cannotKnow } = habitTold(asHabit(decided))
    expect(decides).toContain('Items arrive hidden.')
    expect(decides).toContain('One thing of the old course stays behind.')
    expect(decides).toContain('Every quiz comes as a frame, without content.')
    expect(decides).toContain('Where some are left over, visits stay.')
    expect(cannotKnow).toContain('The title students see, and the section label.')
    for (const line of [...decides, ...cannotKnow]) expect(line).toMatch(/^[A-Z].*\.$/)
  })
})
