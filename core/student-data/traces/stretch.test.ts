import { describe, expect, it } from 'vitest'
import { asRole, removed } from './stretch'

/** A text with `words` taken out, or with a role in their place. */
function without(text: string, words: string, how = removed): string {
  const from = text.indexOf(words)
  const to = from + words.length
  const { lead, tail, text: instead } = how(text, from, to)
  return text.slice(0, from - lead) + instead + text.slice(to + tail)
}
describe('taking words out of a text', () => {
  it.each([
    ['Ask Ms. Ruan about it.', 'Ruan', 'Ask about it.'],
    ['Ask Ruan about it.', 'Ruan', 'Ask about it.'],
    ['That is Ruan’s log.', 'Ruan', 'That is log.'],
    ['That is Ruan‘s log.', 'Ruan', 'That is ‘s log.'],
    ['The classes’ log is Banks’ own.', 'Banks', 'The classes’ log is own.'],
    ['The log (Ruan) is here.', 'Ruan', 'The log is here.'],
    ['The log (Ruan, again) is here.', 'Ruan', 'The log (, again) is here.'],
    ['Seen by Ruan, and others', 'Ruan', 'Seen by, and others'],
    ['Ruan saw it', 'Ruan', 'saw it'],
    ['It was Ruan', 'Ruan', 'It was'],
    ['the page-Ruan-notes', 'Ruan', 'the page--notes'],
  ])('“%s” without %s', (text, words, left) => {
    expect(without(text, words)).toBe(left)
  })
})
describe('a role instead of words', () => {
  it.each([
    ['Ask Ms. Ruan about it.', 'Ruan', 'Ask a student about it.'],
    ['Ruan saw it. Banks’ log too.', 'Ruan', 'A student saw it. Banks’ log too.'],
    ['The log is Banks’ own.', 'Banks', 'The log is a student’s own.'],
    ['So it was. Ruan saw it.', 'Ruan', 'So it was. A student saw it.'],
    ['We know the Ruan log.', 'Ruan', 'We know a student log.'],
    ['The Ruan log.', 'Ruan', 'A student log.'],
  ])('“%s” for %s', (text, words, now) => {
    expect(without(text, words, asRole)).toBe(now)
  })
  it.each([
    ['every Ruan', false],
    ['two Ruan', false],
    ['3 Ruan', false],
    ['my’s Ruan', false],
    ['xRuan', false],
    ['Ruanson', false],
    ['with Ruan', true],
  ])('of “%s” is sound: %s', (text, isSound) => {
    const from = text.indexOf('Ruan')
    expect(asRole(text, from, from + 4).isSound).toBe(isSound)
  })
})
