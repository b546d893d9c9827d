import { honorific, startsSentence } from './weigh'

/** What is edited around a trace: so many letters before its words, and after them, and what stands there instead. */
export interface Stretch {
  readonly lead: number
  readonly tail: number
  readonly text: string
}
const blank = /[\s\u00a0]/
const possessive = /^['’]s?(?![\p{L}\p{N}])/u

/** Taking the words out: with a title (`Ms. `), the `’s` after them, brackets that held nothing else, and one of two blanks. */
export function removed(text: string, from: number, to: number): Stretch {
  const titled = honorific.exec(text.slice(Math.max(0, from - 12), from))?.[1]?.length ?? 0
  let start = from - titled
  let end = to
  const own = possessive.exec(text.slice(to))?.[0] ?? ''
  if (own.length === 2 || (own !== '' && /s$/i.test(text.slice(from, to)))) end += own.length
  if (text.charAt(start - 1) === '(' && text.charAt(end) === ')') [start, end] = [start - 1, end + 1]
  const [before, after] = [text.charAt(start - 1), text.charAt(end)]
  if (blank.test(before) && (after === '' || blank.test(after) || /[,.;:!?)]/.test(after))) start--
  else if (before === '' && blank.test(after)) end++
  return { lead: from - start, tail: end - to, text: '' }
}

/** What stands before a role cannot: `my a student`, `young a student`, `two a student`. */
const cannotStandBefore =
  /(?:(?:^|[^\p{L}])(?:(?:th(?:is|at|ese|ose)|each|every|any|no|some|my|your|our|his|her|its|their|both|one|two|three|four|five|another|other|same|former|late|young|old|little|big|poor|good|great|new|own|our|dear|hi|hello|hey|student|students|classmate|pupil|friend|colleague|author|pupils|ex|non)[\s\u00a0]|\d[\s\u00a0])|['’]s[\s\u00a0])$/iu
const article = /(?:^|[^\p{L}])((?:the|an?)[\s\u00a0]+)$/iu

/**
 * The words “a student” instead: with the article and the title before the words, with a capital where a sentence begins, and with its `’s`
 * where the name has but an apostrophe. Null where they would not read right: then a person says what happens.
 */
export function asRole(text: string, from: number, to: number): Stretch & { readonly isSound: boolean } {
  const titled = honorific.exec(text.slice(Math.max(0, from - 12), from))?.[1]?.length ?? 0
  const lead = article.exec(text.slice(Math.max(0, from - titled - 6), from - titled))?.[1] ?? ''
  const start = from - titled - lead.length
  const before = text.slice(Math.max(0, start - 16), start)
  const after = text.slice(to, to + 3)
  const hasCapital = startsSentence(before.slice(-6)) || /^\p{Lu}/u.test(lead)
  const own = possessive.exec(text.slice(to))?.[0] ?? ''
  const isBare = own.length === 1 && /[sxz]$/i.test(text.slice(from, to)) && /^.[\s\u00a0]\p{L}/u.test(after)
  const isJoined = /[\p{L}\p{N}_-]$/u.test(before) || /^[-‐‑_]?[\p{L}\p{N}]/u.test(after)
  return {
    lead: from - start,
    tail: isBare ? 1 : 0,
    text: `${hasCapital ? 'A student' : 'a student'}${isBare ? `${own}s` : ''}`,
    isSound: !cannotStandBefore.test(before) && !isJoined,
  }
}
