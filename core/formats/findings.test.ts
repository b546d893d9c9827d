import { describe, expect, it } from 'vitest'
import { finding, findingList } from './findings'
import { FormatRefusal } from './refusal'

describe('findings', () => {
  it('are counted by their code, and apart for what they are about', () => {
    const list = findingList(1)
    const emptyAt = (row: number, column: string): void =>
      list.add('value-unlike', `users.csv row ${row}, ${column}`, {
        table: 'users',
        column,
        required: true,
        fault: row === 3 ? { is: 'no-date', value: 'soon' } : { is: 'empty' },
      })
    emptyAt(2, 'email')
    emptyAt(3, 'email')
    emptyAt(3, 'role')
    const told = list.all()
    expect(told.map(({ where, count }) => [where, count])).toEqual([
      ['users.csv row 2, email', undefined],
      ['users.csv row 3, role', undefined],
      ['users.csv row 3, email', 1],
    ])
    expect(told.every(({ code, severity }) => code === 'value-unlike' && severity === 'error')).toBe(true)
    expect(told[2]?.message).toBe(
      'and 1 more like it; the last: "soon" is not a date (YYYY-MM-DD); the row was left out',
    )
  })

  it('are as grave as what they cost', () => {
    const cell = { table: 'lineItems', column: 'dueDate', fault: { is: 'empty' } } as const
    expect(finding('value-unlike', 'x', { ...cell, required: false }).severity).toBe('warning')
    expect(finding('value-unlike', 'x', { ...cell, required: true }).severity).toBe('error')
  })

  it('keep no more of a text than their sentence needs', () => {
    const { details, message } = finding('event-unreadable', 'x', { title: '', why: 'y'.repeat(1_000_000) })
    expect(JSON.stringify(details).length).toBeLessThan(400)
    expect(message.length).toBeLessThan(400)
  })
})

describe('a refusal', () => {
  it('tells its sentence and what to do from its code', () => {
    const refusal = new FormatRefusal('too-many-rows', 'users.csv', { most: 10 })
    expect([refusal.message, refusal.why]).toEqual(['users.csv: has more than 10 rows', 'limit'])
    expect(refusal.wayOn).toContain('raise the limit')
    expect(new FormatRefusal('entry-outside', 'a.zip', { path: '../x' }).why).toBe('hostile')
  })
})
