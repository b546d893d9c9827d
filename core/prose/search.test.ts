import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { booleanQuery, snippetOf, wordsOf } from './search'

const shown = (text: string, looked: string): string =>
  snippetOf(text, looked)
    .map(({ text: part, isWord }) => (isWord ? `[${part}]` : part))
    .join('')

describe('what somebody looks for', () => {
  it('becomes words that must all be there, or begin longer ones; signs of the search itself are no words', () => {
    expect(booleanQuery('tide tables')).toBe('+tide* +tables*')
    expect(booleanQuery('"ebb" -flood (neap) @ > <')).toBe('+ebb* +flood* +neap*')
    expect(booleanQuery('a of')).toBeNull()
    expect(booleanQuery('  ')).toBeNull()
  })
  it('is never anything but such words, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string(), text => {
        const query = booleanQuery(text)
        if (query !== null) expect(query).toMatch(/^(\+[\p{L}\p{N}]+\*)( \+[\p{L}\p{N}]+\*)*$/u)
      }),
    )
  })
})
describe('a snippet', () => {
  it('stands around the first word that is found, with each marked, whatever its case and accents', () => {
    const text = `${'before '.repeat(30)}the Épreuve of the tide ${'after '.repeat(60)}`
    expect(shown(text, 'epreuve')).toMatch(/^… .*the \[Épreuve\] of the tide .* …$/)
    expect(shown('Tide and TIDES, at betide', 'tide at')).toBe('[Tide] and [TIDE]S, at betide')
  })
  it('is the beginning where no word is in it, and never more than some two hundred characters', () => {
    expect(shown('Only the title had it', 'else')).toBe('Only the title had it')
    fc.assert(
      fc.property(
        fc.string({ maxLength: 2000, unit: 'grapheme' }),
        fc.string({ maxLength: 12 }),
        (text, looked) => {
          const parts = snippetOf(text, looked)
          const whole = parts.map(part => part.text).join('')
          const longest = Math.max(0, ...wordsOf(looked).map(word => word.length))
          expect(whole.length).toBeLessThanOrEqual(190 + longest)
          // Nothing is shown that the text does not have.
          expect(text).toContain(whole.replace(/^… /, '').replace(/ …$/, ''))
        },
      ),
    )
  })
})
