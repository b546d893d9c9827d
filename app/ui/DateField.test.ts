import { mount } from '@vue/test-utils'
import { afterEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { dayOf } from '~~/core/calendar/day'
import { termCalendar } from '~~/core/calendar/schema'
import { compileTerm } from '~~/core/calendar/term'
import DateField from './DateField.vue'

const term = compileTerm(
  termCalendar.parse({ timeZone: 'UTC', classes: { from: '2027-01-06', to: '2027-04-09' } }),
)
const context = { term, meetings: [], usualMinute: 23 * 60 + 59, today: dayOf('2027-01-05') }
const mounted = (modelValue: string | null) =>
  mount(DateField, { props: { modelValue, context, label: 'Due' }, attachTo: document.body })
type Field = ReturnType<typeof mounted>
let field: Field
afterEach(() => field.unmount())
async function type(text: string): Promise<void> {
  const input = field.get('input')
  await input.trigger('focus')
  await input.setValue(text)
}
const echo = (): string => document.querySelector('.date-panel .echo')?.textContent?.trim() ?? ''
const enter = () => field.get('input').trigger('keydown', { key: 'Enter' })
const told = (): unknown[] => field.emitted('update:modelValue')?.map(([value]) => value) ?? []

describe('the date field', () => {
  it('shows what stands as the page writes it, with the year where it is not the term’s', () => {
    field = mounted('2027-02-05T23:59')
    expect(field.get('input').element.value).toBe('Fri 5 Feb 23:59')
    field.unmount()
    field = mounted('2028-02-04T23:59')
    expect(field.get('input').element.value).toBe('Fri 4 Feb 2028 23:59')
  })
  it('says what it understood before it counts, and tells it on Enter', async () => {
    field = mounted('2027-02-05T17:00')
    await type('22.2.27')
    expect(echo()).toContain('Mon 22 Feb, 17:00 kept')
    expect(told()).toEqual([])
    await enter()
    expect(told()).toEqual(['2027-02-22T17:00'])
    expect(field.emitted('accepted')).toHaveLength(1)
  })
  it('takes no day that does not exist, and keeps what was typed in sight', async () => {
    field = mounted('2027-02-05T17:00')
    await type('31 feb')
    await enter()
    await field.get('input').trigger('blur')
    expect(told()).toEqual([])
    expect(field.get('[role=alert]').text()).toBe('February 2027 has 28 days.')
    expect(field.get('input').attributes('aria-invalid')).toBe('true')
    expect((field.vm as unknown as { settleNow: () => boolean }).settleNow()).toBe(false)
  })
  it('asks twice for a day far from classes', async () => {
    field = mounted(null)
    await type('30 jun')
    expect(echo()).toBe('Wed 30 Jun 23:59, 82 days after classes end. Press Enter again to keep it.')
    await enter()
    expect(told()).toEqual([])
    await enter()
    expect(told()).toEqual(['2027-06-30T23:59'])
  })
  it('asks which day is meant, and is answered with 1 or 2', async () => {
    field = mounted(null)
    await type('3/4')
    expect(echo()).toBe('3 April or 4 March? Press 1 or 2.')
    await enter()
    expect(told()).toEqual([])
    await field.get('input').trigger('keydown', { key: '2' })
    await enter()
    expect(told()).toEqual(['2027-03-04T23:59'])
  })
  it('leaves all as it was on Escape, and says so once there is nothing to leave', async () => {
    field = mounted('2027-02-05T17:00')
    await type('nonsense')
    await field.get('input').trigger('keydown', { key: 'Escape' })
    await nextTick()
    expect(field.get('input').element.value).toBe('Fri 5 Feb 17:00')
    expect(field.emitted('left')).toBeUndefined()
    await field.get('input').trigger('keydown', { key: 'Escape' })
    expect(field.emitted('left')).toHaveLength(1)
    expect(told()).toEqual([])
  })
  it('takes what is typed when it is left, with the year or without', async () => {
    const days = { ...context, usualMinute: null }
    field = mount(DateField, {
      props: { modelValue: '2027-01-29', context: days, label: 'Enrol until' },
      attachTo: document.body,
    })
    await type('1 mar 2027')
    await field.get('input').trigger('blur')
    expect(told()).toEqual(['2027-03-01'])
  })
  it('says that a day which one is still asked about is not saved, once the field is left', async () => {
    field = mounted(null)
    await type('30 jun')
    await field.get('input').trigger('blur')
    expect(told()).toEqual([])
    expect(field.get('[role=alert]').text()).toBe(
      'Not saved: Wed 30 Jun 23:59, 82 days after classes end. Press Enter again to keep it.',
    )
    await type('3/4')
    await field.get('input').trigger('blur')
    expect(field.get('[role=alert]').text()).toBe('Not saved: 3 April or 4 March? Press 1 or 2.')
  })
  it('closes its month sheet on Escape, and opens it again for what is typed', async () => {
    field = mounted('2027-02-05T17:00')
    await type('22 feb')
    expect(document.querySelector('.date-panel')).not.toBeNull()
    await field.get('input').trigger('keydown', { key: 'Escape' })
    expect(document.querySelector('.date-panel')).toBeNull()
    await field.get('input').setValue('23 feb')
    expect(document.querySelector('.date-panel')).not.toBeNull()
  })
})
