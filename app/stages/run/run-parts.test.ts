import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { EffectReply, PlanReply } from '~~/shared/api/plans'
import { somePlan } from '~/testing/plan'
import ConsentPanel from './ConsentPanel.vue'
import SectionDates from './SectionDates.vue'
import { writtenText } from './effect'

const section = (id: string, number: string) => ({
  course: { id, code: 'HYD 240', section: number, meetings: [{ weekday: 2, start: '13:00', end: '14:00' }] },
  chosen: true,
  joined: false,
  faults: [],
})
const planWith = (more: Partial<PlanReply> = {}): PlanReply => {
  const plan = somePlan({})
  const term = { name: 'Spring 2027', classesFrom: '2027-01-06', classesTo: '2027-04-09' }
  const source = { ...plan.source, course: { ...plan.source.course, term } }
  const target = { ...plan.target, course: { ...plan.target.course, title: 'Tides', term } }
  return { ...plan, source, target, sections: [], set: [], fits: [], siblings: [], ...more } as PlanReply
}
const asked = { problem: null, nothing: false, awaited: false, busy: false, further: [], furtherReady: true }
const consent = (plan: PlanReply, more: object = {}) =>
  mount(ConsentPanel, {
    props: { ...asked, plan, consent: false, withFurther: false, ...more },
    global: {
      stubs: {
        NuxtLink: { template: '<a><slot /></a>' },
        ElCheckbox: { template: '<label><slot /></label>' },
      },
    },
  })

describe('consent to a run', () => {
  it('names every course that is written', () => {
    const sections = [section('two', '02'), section('three', '03')] as unknown as PlanReply['sections']
    expect(writtenText(planWith({ sections }))).toBe('HYD 240-01, HYD 240-02 and HYD 240-03')
    expect(consent(planWith({ sections })).text()).toContain(
      'I have seen what changes in HYD 240-01, HYD 240-02 and HYD 240-03',
    )
    expect(consent(planWith()).text()).toContain('I have seen what changes in HYD 240-01')
  })
  it('is not asked for where nothing would be written, no shell is there, or one may not run', () => {
    expect(consent(planWith(), { nothing: true }).text()).toContain('There is nothing to add')
    expect(consent(planWith(), { awaited: true }).text()).toContain('There is no shell yet')
    const mayNot = consent(planWith({ may: { edit: true, run: false } }))
    expect(mayNot.text()).toContain('You may prepare this plan')
    expect(mayNot.find('label').exists()).toBe(false)
  })
})

describe('what sections get', () => {
  const told = (more: Partial<EffectReply['sections'][number]>): EffectReply['sections'] =>
    [
      { course: 'two', byMeetings: false, dates: { settle: 0 }, differences: [], leaves: [], ...more },
    ] as EffectReply['sections']
  const shown = (sections: EffectReply['sections']) =>
    mount(SectionDates, {
      props: {
        plan: planWith({ sections: [section('two', '02')] as unknown as PlanReply['sections'] }),
        sections,
      },
    })
  it('is said plainly where the rule counts weeks', () => {
    expect(shown(told({})).text()).toContain(
      'the same dates as HYD 240-01: the rule counts days and weeks, not meetings',
    )
  })
  it('is shown date by date where it differs, the rest when asked for', async () => {
    const differences = Array.from({ length: 9 }, (_, at) => ({
      lineage: `i${at}`,
      title: `Lab sheet ${at}`,
      field: 'due',
      shell: '2027-01-13T09:30',
      section: '2027-01-14T13:00',
    })) as EffectReply['sections'][number]['differences']
    const dates = { settle: 2 } as EffectReply['sections'][number]['dates']
    const page = shown(told({ byMeetings: true, dates, differences }))
    expect(page.text()).toContain('9 dates of its own, 2 to settle')
    expect(page.findAll('tbody tr')).toHaveLength(6)
    await page.get('button').trigger('click')
    expect(page.findAll('tbody tr')).toHaveLength(9)
    expect(page.get('tbody tr').text()).toContain('Thu 14 Jan 13:00')
  })
})
