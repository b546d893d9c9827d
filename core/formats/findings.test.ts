import { describe, expect, it } from 'vitest'
import { findingList } from './findings'

describe('findings', () => {
  it('are counted by their code, however they are worded, and apart for what they are about', () => {
    const list = findingList(1)
    list.add('error', 'value-unlike', 'users.csv row 2, email', 'is empty', 'email')
    list.add('error', 'value-unlike', 'users.csv row 3, email', 'is no address at all', 'email')
    list.add('error', 'value-unlike', 'users.csv row 3, role', 'is empty', 'role')
    const told = list.all()
    expect(told.map(({ where, count }) => [where, count])).toEqual([
      ['users.csv row 2, email', undefined],
      ['users.csv row 3, role', undefined],
      ['users.csv row 3, email', 1],
    ])
    expect(told.every(finding => finding.code === 'value-unlike')).toBe(true)
    expect(told[2]?.message).toBe('and 1 more like it; the last: is no address at all')
  })
})
