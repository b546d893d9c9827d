import { describe, expect, it } from 'vitest'
import type { ChangedPart, ThingPart } from '../again'
import { lossText } from './loss'
import type { PlaceRow } from './row'

const part = (name: ThingPart, more: Partial<ChangedPart> = {}): ChangedPart => ({
  part: name,
  outcome: 'source',
  takes: true,
  settle: false,
  ...more,
})
const row = (more: Partial<PlaceRow>): PlaceRow =>
  ({ happens: 'again', source: { title: 'Log' }, shell: { title: 'Log' }, parts: [], ...more }) as PlaceRow
const old = 'the old course’s'

describe('what becomes of a thing of the shell', () => {
  it('calls new dates new: they may be reckoned or set by hand', () => {
    expect(lossText(row({ parts: [part('dates')] }), old)).toBe('gets new dates')
  })
  it('names whose text it gets, and leaves out what is not taken', () => {
    const parts = [part('text'), part('title', { takes: false }), part('state')]
    expect(lossText(row({ parts }), 'the file’s')).toBe('gets the file’s text, another state')
    const passages = { of: { source: '', shell: '' }, takes: [0], both: [2] }
    expect(lossText(row({ parts: [part('text', { passages: passages })] }), 'HYD 240’s')).toBe(
      'gets HYD 240’s text in 2 passages',
    )
  })
  it('says by what it is replaced, and that an empty place is one', () => {
    expect(lossText(row({ happens: 'replaces' }), old)).toBe('is replaced by the old course’s')
    expect(lossText(row({ happens: 'replaces', shell: { title: 'Notes' } as never }), old)).toBe(
      'is replaced by “Log”',
    )
    expect(lossText(row({ happens: 'removes' }), old)).toBe('is removed from the shell')
    expect(lossText(row({ happens: 'unfilled' }), old)).toBe(
      'is an empty place that nothing fills, and is removed',
    )
  })
})
