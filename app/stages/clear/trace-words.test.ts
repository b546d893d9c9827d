import { describe, expect, it } from 'vitest'
import { lookedThroughFile, searchedFor } from '../../../tests/support/traces'
import type { TracedPerson } from '~~/core/student-data/traces/people'
import type { Trace } from '~~/core/student-data/traces/trace'
import { doubtText, happensText, namesText, placeText, sameName, shownAs } from './trace-words'

const student = (id: string, given: string, family: string): TracedPerson => ({
  id,
  given,
  family,
  middle: null,
  nickname: null,
  email: null,
  key: `st-26-${id}`,
  number: null,
  userName: null,
  phones: [],
})
const students = [
  student('1', 'Will', 'Bay'),
  student('2', 'Halvard', 'Ness'),
  student('3', 'Şebnem', 'Ateş'),
]
const tracesIn = async (html: string): Promise<Trace[]> =>
  (
    await lookedThroughFile(
      { bytes: new TextEncoder().encode(html), mediaType: 'text/html' },
      searchedFor(students),
    )
  ).traces
const keep = { does: 'keep' as const, because: 'they agreed', by: '' }

describe('how a trace is told', () => {
  it('shows the words found, what goes with them, and what stands there instead', async () => {
    const [trace] = await tracesIn('<p>This is the Will Bay of last term.</p>')
    if (!trace) throw new Error('nothing found')
    expect(shownAs(trace, {})).toMatchObject({
      before: 'This is ',
      lead: 'the ',
      text: 'Will Bay',
      tail: '',
      instead: 'a student',
      goes: true,
    })
    const remove = { ...keep, does: 'remove' as const }
    expect(shownAs(trace, { [trace.id]: remove })).toMatchObject({ lead: ' ', instead: '', goes: true })
    expect(shownAs(trace, { [trace.id]: keep })).toMatchObject({ lead: '', instead: '', goes: false })
    expect(happensText(trace, {})).toBe('becomes “a student”')
    expect(happensText(trace, { [trace.wordId]: keep })).toBe('kept: they agreed')
    expect(placeText(trace)).toBe('paragraph 1')
  })
  it('counts the places of one name alone, and says why somebody must decide', async () => {
    const traces = await tracesIn(
      '<p>Ask Halvard. Then Halvard wrote; only Şebnem read.</p><p>Halvard Berg did.</p>',
    )
    const open = traces.filter(({ weight }) => weight === 'ask')
    const [first] = open
    if (!first) throw new Error('nothing found')
    expect(sameName(first, traces)).toHaveLength(2)
    expect(namesText(open)).toBe('“Halvard” in 2 places and “Şebnem”')
    expect(doubtText(first)).toBe('a first name alone')
    const other = traces.find(({ weight }) => weight === 'doubtful')
    expect(other && happensText(other, {})).toBe('stays: probably no student')
    // One that means somebody else is settled with its like alone.
    expect(other && sameName(other, traces)).toHaveLength(1)
  })
})
