/** MariaDB's full text knows no words shorter than this (innodb_ft_min_token_size, as it is unless set). */
const shortest = 3

/** The words of what somebody looks for, as they are told apart: letters and digits that stand together. */
export const wordsOf = (text: string): string[] => text.normalize('NFC').match(/[\p{L}\p{N}]+/gu) ?? []
/** Those of them that are long enough to be looked for. */
export const longWords = (text: string): string[] => wordsOf(text).filter(word => word.length >= shortest)
/**
 * What somebody typed as MariaDB's full text in boolean mode: every word must be there, or a longer one that begins with it. Null where no word
 * is long enough to be looked for.
 */
export function booleanQuery(text: string): string | null {
  const words = longWords(text)
  return words.length === 0 ? null : words.map(word => `+${word}*`).join(' ')
}

const fold = (text: string): string =>
  text
    .replace(/[^\p{ASCII}]/gu, character => {
      const bare = character.normalize('NFD').replace(/\p{M}+/gu, '')
      // As long as what it stands for, so that places in both texts are the same.
      return bare.length === character.length ? bare : character
    })
    .toLowerCase()
/** Part of a text: marked where it holds one of the words. */
export interface SnippetPart {
  readonly text: string
  readonly isWord: boolean
}
/** Where a word next begins in a text, from a place on; -1: nowhere. Within another word it does not count. */
function nextAt(text: string, word: string, from: number): number {
  let at = text.indexOf(word, from)
  while (at > 0 && /[\p{L}\p{N}]/u.test(text.charAt(at - 1))) at = text.indexOf(word, at + 1)
  return at
}
const around = { before: 60, all: 180 }
/** A piece of a text around the first of some words, the words marked; without any of them, its beginning. */
export function snippetOf(text: string, looked: string): SnippetPart[] {
  const words = longWords(looked).map(fold)
  const folded = fold(text)
  const isSame = folded.length === text.length
  const first = Math.min(...words.map(word => nextAt(folded, word, 0)).filter(at => at >= 0))
  const found = isSame && Number.isFinite(first) ? first : 0
  const from = found <= around.before ? 0 : text.indexOf(' ', found - around.before) + 1 || found
  const to = Math.min(text.length, from + around.all)
  const parts: SnippetPart[] = []
  const say = (words: string, isWord: boolean): void => {
    if (words !== '') parts.push({ text: words, isWord })
  }
  let at = from
  if (from > 0) say('… ', false)
  while (isSame && at < to) {
    const hits = words
      .map(word => ({ word, place: nextAt(folded, word, at) }))
      .filter(({ place }) => place >= 0 && place < to)
      .sort((a, b) => a.place - b.place)
    const [hit] = hits
    if (!hit) break
    say(text.slice(at, hit.place), false)
    say(text.slice(hit.place, hit.place + hit.word.length), true)
    at = hit.place + hit.word.length
  }
  say(text.slice(at, Math.max(to, at)), false)
  if (to < text.length) say(' …', false)
  return parts
}
