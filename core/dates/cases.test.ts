import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { isTimeZone, zoneRules } from '../../server/calendars/zones'
import { planCase, readCase } from './case'

const folder = new URL('../../tests/cases/', import.meta.url)

describe('worked cases', () => {
  it.each(readdirSync(folder).filter(name => name.endsWith('.json')))('%s comes out exactly', name => {
    const file = JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as {
      case: unknown
      expected: { items: unknown[] }
    }
    const read = readCase(file.case, isTimeZone)
    if ('faults' in read) throw new Error(JSON.stringify(read.faults))
    const { items } = planCase(read.case, zoneRules)
    expect(items.map(({ id, opens, due, closes, flags }) => ({ id, opens, due, closes, flags }))).toEqual(
      file.expected.items,
    )
  })
})
