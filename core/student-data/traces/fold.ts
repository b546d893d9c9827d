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
/** Letters that nobody sees: a soft hyphen, joiners, a mark of byte order (Unicode, Default_Ignorable_Code_Point). */
const unseen = /[\u00ad\u034f\u061c\u180e\u200b-\u200f\u2060-\u2064\ufe00-\ufe0f\ufeff]/g
const isUnseen = (code: number): boolean =>
  code === 0xad || (code >= 0x34f && String.fromCharCode(code).replace(unseen, '') === '')

/** A word without case, marks and letters that nobody sees: `Zoë`, `ZOË` and `Zoe` are one. */
export function folded(word: string): string {
  const lower = word.toLowerCase()
  if (isPlain.test(lower)) return lower
  return lower
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(unseen, '')
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
/** 1: a digit or a small letter; 2: a capital; 0: no letter of a word. For ASCII, which most texts are. */
const ascii = Uint8Array.from({ length: 128 }, (_, code) => {
  if ((code >= 48 && code <= 57) || (code >= 97 && code <= 122)) return 1
  return code >= 65 && code <= 90 ? 2 : 0
})
/** How many places a letter outside ASCII takes; 0 where it is none of a word. One that nobody sees goes with the word around it. */
function letterLength(text: string, at: number): number {
  if (isUnseen(text.charCodeAt(at))) return 1
  const letter = String.fromCodePoint(text.codePointAt(at) ?? 0)
  return wordLetter.test(letter) ? letter.length : 0
}
/**
 * The words of a text, in order: runs of letters, marks and digits. Walks it place by place and asks no pattern of what is ASCII, since
 * texts are many megabytes.
 */
export function wordsIn(text: string): Word[] {
  const words: Word[] = []
  const { length } = text
  let at = 0
  while (at < length) {
    const from = at
    let isAscii = true
    let hasCapitals = false
    while (at < length) {
      const code = text.charCodeAt(at)
      const step = code < 128 ? (ascii[code] ?? 0) : letterLength(text, at)
      if (step === 0) break
      if (code >= 128) {
        isAscii = false
        at += step
      } else {
        if (step === 2) hasCapitals = true
        at++
      }
    }
    if (at === from) {
      at++
      continue
    }
    // Letters that nobody sees are the word's where they stand within it, and nobody's at its ends.
    let [first, end] = [from, at]
    while (end > first && isUnseen(text.charCodeAt(end - 1))) end--
    while (first < end && isUnseen(text.charCodeAt(first))) first++
    if (first === end) continue
    const word = text.slice(first, end)
    const lower = hasCapitals ? word.toLowerCase() : word
    words.push({ from: first, to: end, folded: isAscii ? lower : folded(word) })
  }
  return words
}
/** Where one word is several run together: `FairlieRosamund`, `rfairlie2`, `N04254`. */
const joint = /(?<=\p{Ll})(?=\p{Lu})|(?<=\p{Lu})(?=\p{Lu}\p{Ll})|(?<=\p{L})(?=\p{N})|(?<=\p{N})(?=\p{L})/gu
/** The parts of a word that is several run together; none where it is one. */
export function partsOfWord(text: string, { from, to }: Pick<Word, 'from' | 'to'>): Word[] {
  const word = text.slice(from, to)
  const at = [...word.matchAll(joint)].map(found => found.index)
  if (at.length === 0) return []
  return [0, ...at].map((start, n) => {
    const end = at[n] ?? word.length
    return { from: from + start, to: from + end, folded: folded(word.slice(start, end)) }
  })
}
export const foldedWords = (text: string): string[] => wordsIn(text).map(word => word.folded)
