import { z } from 'zod'

/** A text without halves of characters (lone surrogates), which cannot be written as UTF-8: the replacement character stands for each. */
export const wellFormed = (text: string): string => text.replace(/\p{Surrogate}/gu, '\uFFFD')

const notWritten = /[\0\p{Surrogate}]/u
const deepest = 200
/**
 * What within a JSON value cannot be kept as it is: a text with a NUL or half a character, or lists in lists deeper than any that are
 * meant. Null where all can. Takes time in proportion to the value.
 */
export function unkeptText(value: unknown): { path: string[]; message: string } | null {
  const waiting: { value: unknown; path: string[] }[] = [{ value, path: [] }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value: each, path } = next
    if (typeof each === 'string' && notWritten.test(each))
      return { path, message: 'has a character that is none: a NUL, or half of one. Type it anew.' }
    if (typeof each !== 'object' || each === null) continue
    if (path.length >= deepest)
      return { path: path.slice(0, 3), message: `is nested more than ${deepest} deep.` }
    for (const [key, inner] of Object.entries(each)) {
      if (notWritten.test(key)) return { path, message: 'has a name with a character that is none.' }
      waiting.push({ value: inner, path: [...path, key] })
    }
  }
  return null
}

/** A name or another text of one line, of at most so many characters; blanks at its ends are taken off. */
export const line = (most: number, tooLong = `At most ${most} characters.`) =>
  z
    .string()
    .trim()
    .max(most, tooLong)
    .refine(text => !/[\p{Cc}\p{Zl}\p{Zp}]/u.test(text), 'Keep it to one line, without control characters.')
/** The same; it must not be empty. */
export const filledLine = (most: number, empty: string) => line(most).min(1, empty)
