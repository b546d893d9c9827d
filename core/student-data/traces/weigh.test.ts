import { describe, expect, it } from 'vitest'
import { lookedThroughFile, searchedFor } from '../../../tests/support/traces'
import { markupSegments, segment } from './markup'
import type { TracedPerson } from './people'
import { peopleIndex, scan } from './scan'
import { rosterNames, weigh } from './weigh'

const person = (given: string, family: string, more: Partial<TracedPerson> = {}): TracedPerson => ({
  id: `${given} ${family}`,
  given,
  middle: null,
  family,
  nickname: null,
  email: null,
  key: 'k',
  number: null,
  userName: null,
  phones: [],
  ...more,
})
const rosamund = person('Rosamund', 'Fairlie')
/** What is found on a page, and how surely. */
async function weights(html: string, people: readonly TracedPerson[]): Promise<string[]> {
  const file = { bytes: new TextEncoder().encode(html), mediaType: 'text/html' }
  const { traces } = await lookedThroughFile(file, searchedFor(people))
  return traces.map(({ text, weight }) => `${text} ${weight}`)
}
const textsOf = (html: string): string[] => markupSegments(html).map(({ text }) => text.trim())
const hitsIn = (text: string, people: readonly TracedPerson[], where: 'prose' | 'code' = 'prose') =>
  scan(text, peopleIndex(people), { where }).map(({ from, to }) => text.slice(from, to))

describe('how surely one name alone is somebody', () => {
  const others = [person('Will', 'Banks'), person('Tamsin', 'Quell')]
  /** What one name alone in a text is taken for, and whether something else of students stands near it. */
  function weighed(text: string, name: string) {
    const hits = scan(text, peopleIndex(others), { where: 'prose' })
    const at = hits.findIndex(({ from, to }) => text.slice(from, to) === name)
    return weigh(segment('text', text), hits, at, rosterNames(others))
  }
  it('is supported where another student stands near in full, before it or after it, and not where that is far', () => {
    const far = ' tide'.repeat(30)
    expect(weighed('Tamsin Quell and Banks came', 'Banks').isSupported).toBe(true)
    expect(weighed('So Banks and Tamsin Quell came', 'Banks').isSupported).toBe(true)
    expect(weighed(`Tamsin Quell.${far} Banks came`, 'Banks').isSupported).toBe(false)
    expect(weighed(`So Banks came.${far} Tamsin Quell`, 'Banks').isSupported).toBe(false)
    // The same student in full supports nothing, and one name alone beside it neither.
    expect(weighed('Will Banks and then Banks came', 'Banks').isSupported).toBe(false)
    expect(weighed('Quell and Banks came', 'Banks').isSupported).toBe(false)
    expect(weighed('Ask Ms. Banks', 'Banks')).toEqual({ weight: 'ask', isSupported: true })
    // Two ordinary words where a place is told are asked about.
    expect(weighed('So in the Banks, Will came', 'Banks, Will').weight).toBe('ask')
    expect(weighed('Then Banks, Will came', 'Banks, Will').weight).toBe('sure')
  })
  it('of a name that nobody in particular is called by: `the Fairlie`, `the quay’s Fairlie`', async () => {
    const said = async (text: string) => (await weights(`<p>${text}</p>`, [rosamund]))[0]
    const plainly = await said('We met Fairlie there.')
    expect(await said('We met the Fairlie there.')).not.toBe(plainly)
    expect(await said('We met the quay’s Fairlie there.')).not.toBe(plainly)
    expect(await said('We met them, Fairlie there.')).toBe(plainly)
    expect(await said('We met the crew, Fairlie there.')).toBe(plainly)
  })
})
describe('words that are run together', () => {
  it('tell a name in full, and not one name alone', () => {
    expect(hitsIn('See FairlieRosamund_log', [rosamund], 'code')).toEqual(['FairlieRosamund'])
    expect(hitsIn('See TideRosamundLog', [rosamund], 'code')).toEqual([])
  })
  it('two people of one name stand in one find, and the longest counts', () => {
    const twins = [person('Ana', 'Reis', { id: '1' }), person('Ana', 'Reis', { id: '2' })]
    expect(scan('Ana Reis', peopleIndex(twins), { where: 'prose' }).map(({ people }) => people)).toEqual([
      ['1', '2'],
    ])
  })
  it('of several passes that find the same stretch one counts', () => {
    const { login } = { login: 'rfairlie7' }
    const known = person('Rosamund', 'Fairlie', { userName: login })
    expect(hitsIn(`${login} and Rosamund Fairlie`, [known])).toEqual([login, 'Rosamund Fairlie'])
  })
})
describe('text between tags', () => {
  it('ends a tag at its own end, whatever stands in its quotes', () => {
    expect(textsOf('<p title="a > b">Text</p>')).toContain('Text')
    expect(textsOf("<p title='a > b'>Text</p>")).toContain('Text')
    // A quote that is never closed, and another tag, end it.
    expect(textsOf('<p title="a>Text')).toEqual(expect.arrayContaining([expect.stringContaining('Text')]))
    expect(textsOf('<p <b>Text</b>')).toContain('Text')
  })
  it('is no comment, no section and no declaration', () => {
    expect(textsOf('<!DOCTYPE html><p>Text</p>')).toContain('Text')
    expect(textsOf('<!DOCTYPE html>').join('')).not.toContain('DOCTYPE')
    expect(textsOf('<?xml version="1.0"?>').join('')).not.toContain('version')
    expect(textsOf('1 < 2').join('')).toContain('1 < 2')
  })
  it('takes percent signs in addresses, and references, for what they stand for', async () => {
    expect(await weights('<a href="/x/Rosamund%20Fairlie">log</a>', [rosamund])).toEqual([
      'Rosamund Fairlie sure',
    ])
    const written = await weights('<p>Rosamund&nbsp;Fairlie, Ro&#115;amund Fairlie</p>', [rosamund])
    expect(written).toEqual(['Rosamund\u00a0Fairlie sure', 'Rosamund Fairlie sure'])
    expect(await weights('<script>f("%52osamund%20Fairlie")</script>', [rosamund])).toHaveLength(1)
    const script = '<script>f("Rosamund\\x20Fairlie", "\\u{52}osamund Fairlie", "Ros\\61 mund")</script>'
    expect((await weights(script, [rosamund]))[0]).toMatch(/^Rosamund Fairlie/)
  })
})
