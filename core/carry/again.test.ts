import { describe, expect, it } from 'vitest'
import { carriedAgain, thingParts, type PartValues } from './again'
import { isComposed, textHere, wholeText } from './texts'
import type { CarriedBase } from './base'

const values = (given: Partial<Record<(typeof thingParts)[number], string | null>>): PartValues => ({
  ...(Object.fromEntries(thingParts.map(part => [part, ''])) as PartValues),
  ...given,
})
const again = (
  [was, source, here]: [string | null, string | null, string | null],
  choice?: 'source' | 'shell',
  passages: Parameters<typeof carriedAgain>[4] = null,
) =>
  carriedAgain(
    values({ text: was }),
    values({ text: source }),
    values({ text: here }),
    choice ? { text: choice } : {},
    passages,
  ).map(({ outcome, takes, settle }) => `${outcome}${takes ? ' taken' : ''}${settle ? ' asked' : ''}`)

describe('a part of a thing that was carried before', () => {
  it('is written where the source alone changed, kept where only the shell did, asked where both did', () => {
    expect(again(['a', 'a', 'a'])).toEqual([])
    expect(again(['a', 'b', 'b'])).toEqual([])
    expect(again(['a', 'b', 'a'])).toEqual(['source taken'])
    expect(again(['a', 'a', 'b'])).toEqual(['here'])
    expect(again(['a', 'b', 'c'])).toEqual(['both asked'])
  })
  it('goes by what somebody says, which settles it', () => {
    expect(again(['a', 'b', 'a'], 'shell')).toEqual(['source'])
    expect(again(['a', 'b', 'c'], 'source')).toEqual(['both taken'])
    expect(again(['a', 'b', 'c'], 'shell')).toEqual(['both'])
    expect(again(['a', 'a', 'c'], 'source')).toEqual(['here taken'])
  })
  it('is no matter where any of the three does not know it', () => {
    expect(again([null, 'b', 'c'])).toEqual([])
    expect(again(['a', null, 'c'])).toEqual([])
    expect(again(['a', 'b', null])).toEqual([])
  })
  it('is put together of passages where some are chosen: that is no open question', () => {
    const chosen = (takes: number[], both: number[]) => ({ takes, both })
    expect(again(['a', 'b', 'c'], undefined, chosen([1], []))).toEqual(['both taken'])
    expect(again(['a', 'b', 'c'], undefined, chosen([], [2]))).toEqual(['both taken'])
    expect(again(['a', 'b', 'c'], undefined, chosen([], []))).toEqual(['both'])
  })
})
describe('the text of the shell, as it is compared', () => {
  const base = (wrote: string | null) =>
    ({ wrote, parts: values({ text: 'made of' }) }) as unknown as CarriedBase
  it('counts as what it was made of where it stands as the run made it', () => {
    expect(textHere(base('hash'), 'hash')).toBe('made of')
    expect(textHere(base('hash'), 'edited')).toBe('edited')
    expect(textHere(base(null), 'hash')).toBe('hash')
    expect(textHere(base(null), null)).toBe('')
  })
  it('is put together by a heading, by what goes along, by passages or by questions', () => {
    expect(isComposed(wholeText)).toBe(false)
    expect(isComposed({ ...wholeText, redacts: 'x', isFrame: true })).toBe(false)
    expect(isComposed({ ...wholeText, heading: { title: 'h', nth: 0 } })).toBe(true)
    expect(isComposed({ ...wholeText, further: ['x'] })).toBe(true)
    expect(isComposed({ ...wholeText, passages: { takes: [], both: [] } })).toBe(true)
    expect(isComposed({ ...wholeText, questions: { takes: [] } as never })).toBe(true)
  })
})
