import { distance } from 'fastest-levenshtein'
import { codeKey, type CodePattern } from './codes'

const most = 3
/** Two characters typed otherwise, which two exchanged ones are as well: `HYD 420` for `HYD 240`. */
const farthest = 2
const lettersOf = (text: string): string => [...text].sort().join('')

/**
 * Of a code that stands for none of the known courses: the known ones that look most like it, the nearest first, at most three.
 * Null where the code is a known one, read by the patterns or of a renumbered course.
 */
export function unknownCode(
  code: string,
  known: readonly string[],
  { patterns, mapped }: { patterns: readonly CodePattern[]; mapped: readonly { from: string; to: string }[] },
): string[] | null {
  const key = codeKey(code, patterns)
  const byKey = new Map(
    [...known, ...mapped.flatMap(({ from, to }) => [from, to])].map(each => [codeKey(each, patterns), each]),
  )
  if (byKey.has(key)) return null
  return [...byKey]
    .map(([other, text]) => ({
      text,
      far: distance(key, other),
      isExchanged: lettersOf(key) === lettersOf(other),
    }))
    .filter(({ far }) => far <= farthest)
    .sort(
      (one, other) =>
        Number(other.isExchanged) - Number(one.isExchanged) ||
        one.far - other.far ||
        one.text.localeCompare(other.text),
    )
    .slice(0, most)
    .map(({ text }) => text)
}
