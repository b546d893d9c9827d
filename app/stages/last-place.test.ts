import { afterEach, describe, expect, it } from 'vitest'
import { keepPlace, lastPlace } from './last-place'

afterEach(() => localStorage.clear())

describe('where one goes on with a plan', () => {
  it('is where one was, plan by plan; at Pair where one has not been yet', () => {
    keepPlace('a', '/plans/a/date?item=log')
    keepPlace('b', '/plans/b/carry')
    expect(['a', 'b', 'c'].map(lastPlace)).toEqual([
      '/plans/a/date?item=log',
      '/plans/b/carry',
      '/plans/c/pair',
    ])
  })
  it('is no page of anything else', () => {
    localStorage.setItem('northtide-place-a', 'https://elsewhere.example/plans/a/')
    expect(lastPlace('a')).toBe('/plans/a/pair')
  })
})
