// Words that stand before a number at the head of a title: "Week 3: ", "Unit 3 – ". Common practice, no source.
const counters = 'week|unit|module|chapter|part|lesson|session|topic|section|lecture|day|class|block|step'
const leading = new RegExp(
  `^(?:(?:${counters})\\s+)?\\d+(?:\\.\\d+)*(?:\\s*[.:)–—-]+\\s*|\\s+|$)|^(?:${counters})\\s+\\d+\\b`,
)

const plain = (title: string): string =>
  title
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
const bare = (text: string): string =>
  text
    .replace(/[\p{P}\p{S}]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()

/** A title without the number that stands before it ("3.2 Tides", "Week 3: Tides"); one that is nothing but that keeps it. */
export function withoutNumber(title: string): string {
  // The pattern is of small letters; what it finds is as long in the title as it was written.
  const found = leading.exec(title.toLowerCase())?.[0] ?? ''
  return (
    title
      .slice(found.length)
      .replace(/^[\s.:)–—-]+/, '')
      .trim() || title
  )
}
/** A name by a pattern: `{n}` is the thing's number, `{title}` its title without one. */
export const nameBy = (pattern: string, title: string, n: number): string =>
  pattern.replaceAll('{n}', String(n)).replaceAll('{title}', withoutNumber(title)).trim()

/**
 * A title as it is compared: without case, diacritics, leading numbers, punctuation and doubled blanks. A title that is nothing but a number
 * ("Week 3") keeps it. Empty where nothing of it is a letter or a digit: such a title meets nothing.
 */
export function comparableTitle(title: string): string {
  const text = plain(title).trim()
  return bare(text.replace(leading, '')) || bare(text)
}
