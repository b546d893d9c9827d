/** Letters that no decomposition takes apart (Unicode normalization, annex 15), and what is typed for them. */
const apart: Readonly<Record<string, string>> = {
  ß: 'ss',
  ø: 'o',
  đ: 'd',
  ð: 'd',
  ł: 'l',
  æ: 'ae',
  œ: 'oe',
  þ: 'th',
  ı: 'i',
}
const isPlain = /^[a-z0-9]*$/

/** A word without case and marks: `Zoë`, `ZOË` and `Zoe` are one. */
export function folded(word: string): string {
  const lower = word.toLowerCase()
  if (isPlain.test(lower)) return lower
  return lower
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(/[ßøđðłæœþı]/g, letter => apart[letter] ?? letter)
}
/** How a name with an umlaut or ring is written where there are none: `Müller` as `Mueller`, `Åse` as `Aase` (common practice). */
export const spelledOut = (name: string): string =>
  name
    .normalize('NFC')
    .replace(/[äÄ]/g, 'ae')
    .replace(/[öÖøØ]/g, 'oe')
    .replace(/[üÜ]/g, 'ue')
    .replace(/[åÅ]/g, 'aa')

/** A word of a text: where it stands, and how it is compared. */
export interface Word {
  readonly from: number
  readonly to: number
  readonly folded: string
}
const wordLetter = /[\p{L}\p{M}\p{N}]/u
const isAsciiWord = (code: number): boolean =>
  (code >= 97 && code <= 122) || (code >= 65 && code <= 90) || (code >= 48 && code <= 57)
/** Whether a word goes on at a place of a text; a letter outside the basic plane takes two places. */
function letterLength(text: string, at: number): number {
  const code = text.charCodeAt(at)
  if (code < 128) return isAsciiWord(code) ? 1 : 0
  const letter = String.fromCodePoint(text.codePointAt(at) ?? 0)
  return wordLetter.test(letter) ? letter.length : 0
}
/** The words of a text, in order: runs of letters, marks and digits. Walks it letter by letter, since texts are many megabytes. */
export function* wordsOf(text: string): Generator<Word> {
  const { length } = text
  let at = 0
  while (at < length) {
    const from = at
    for (let step = letterLength(text, at); step > 0; step = at < length ? letterLength(text, at) : 0)
      at += step
    if (at > from) yield { from, to: at, folded: folded(text.slice(from, at)) }
    else at++
  }
}
export const foldedWords = (text: string): string[] => [...wordsOf(text)].map(word => word.folded)
