import { present } from '../present'
/**
 * Course codes by patterns that an academic office writes: `{subject} {number}-{section}`, `{year}{season}-{subject}{number}-{section}-{reference}`.
 * Everything else in a pattern stands for itself; a blank, hyphen, underscore, dot or slash for any of these, or for none. Letters may be of
 * either case. A pattern is no regular expression, so that none can be written that never ends.
 */
export const codeParts = ['subject', 'number', 'section', 'year', 'season', 'reference'] as const
export type CodePart = (typeof codeParts)[number]
export const seasons = ['winter', 'spring', 'summer', 'autumn'] as const
export type Season = (typeof seasons)[number]
/** How seasons are spelt in codes, each spelling once: `S`, `SP`, `20`. */
export type SeasonSpellings = Readonly<Record<string, Season>>
export interface CodePattern {
  readonly text: string
  readonly tokens: readonly (CodePart | { readonly literal: string })[]
  readonly seasons: SeasonSpellings
}
/** A code taken apart. `number` keeps its letters (`240L`); year and season are those of its term. */
export interface CodeReading {
  readonly pattern: string
  readonly subject: string | null
  readonly number: string | null
  readonly section: string | null
  readonly year: number | null
  readonly season: Season | null
  readonly reference: string | null
}

const separator = /[ \-_./]/
const shapes: Record<Exclude<CodePart, 'season'>, { most: number; fits: RegExp }> = {
  subject: { most: 8, fits: /^\p{L}{2,8}$/u },
  number: { most: 6, fits: /^\d{2,5}\p{L}?$/u },
  section: { most: 4, fits: /^[\p{L}\d]{1,4}$/u },
  year: { most: 4, fits: /^(\d{2}|(19|20)\d{2})$/ },
  reference: { most: 8, fits: /^\d{4,8}$/ },
}

/** Compiles a pattern, or says what is wrong with it. */
export function codePattern(text: string, spellings: SeasonSpellings): CodePattern | { problem: string } {
  if (text.trim() === '') return { problem: 'Write a pattern, like {subject} {number}-{section}.' }
  if (text.length > 100) return { problem: 'A pattern has at most 100 characters.' }
  const tokens: (CodePart | { literal: string })[] = []
  for (const piece of text
    .trim()
    .split(/(\{[^{}]*\})/)
    .filter(Boolean)) {
    const name = /^\{\s*(.*?)\s*\}$/.exec(piece)?.[1]
    if (name === undefined) {
      for (const literal of piece)
        if (/[{}]/.test(literal)) return { problem: `“${literal}” stands alone: write a part as {subject}.` }
      tokens.push(...[...piece].map(literal => ({ literal })))
    } else if (!codeParts.includes(name as CodePart))
      return {
        problem: `{${name}} is no part of a code; there are ${codeParts.map(part => `{${part}}`).join(', ')}.`,
      }
    else if (tokens.includes(name as CodePart)) return { problem: `{${name}} stands twice.` }
    else tokens.push(name as CodePart)
  }
  if (!tokens.includes('number') && !tokens.includes('reference'))
    return { problem: 'A pattern needs {number} or {reference}, or it tells no course.' }
  if (tokens.includes('season') && Object.keys(spellings).length === 0)
    return { problem: '{season} needs spellings, like S for spring.' }
  return {
    text,
    tokens,
    seasons: Object.fromEntries(
      Object.entries(spellings).map(([word, season]) => [word.toUpperCase(), season]),
    ),
  }
}

/** Those of some patterns that can be used. */
export const codePatterns = (written: readonly { text: string; seasons: SeasonSpellings }[]): CodePattern[] =>
  written
    .map(entry => codePattern(entry.text, entry.seasons))
    .filter((pattern): pattern is CodePattern => 'tokens' in pattern)

/** Reads a code by a pattern; null where it does not fit. Of several ways, the one with the longest first part counts. */
export function readByPattern(code: string, pattern: CodePattern): CodeReading | null {
  const text = code.trim().slice(0, 80)
  const found: Partial<Record<CodePart, string>> = {}
  const words = Object.keys(pattern.seasons)
  // What can follow depends on the place in the pattern and in the code alone, so that no place is tried twice.
  const failed = new Set<number>()
  const match = (token: number, at: number): boolean => {
    const place = token * 100 + at
    if (failed.has(place)) return false
    const fits = matchAt(token, at)
    if (!fits) failed.add(place)
    return fits
  }
  const matchAt = (token: number, at: number): boolean => {
    if (token === pattern.tokens.length) return at === text.length
    const what = present(pattern.tokens[token])
    if (typeof what !== 'string') {
      if (separator.test(what.literal))
        return (
          (at < text.length && separator.test(present(text[at])) && match(token + 1, at + 1)) ||
          match(token + 1, at)
        )
      return text[at]?.toUpperCase() === what.literal.toUpperCase() && match(token + 1, at + 1)
    }
    const most = what === 'season' ? Math.max(...words.map(word => word.length)) : shapes[what].most
    for (let length = Math.min(most, text.length - at); length > 0; length--) {
      const piece = text.slice(at, at + length)
      if (what === 'season' ? !(piece.toUpperCase() in pattern.seasons) : !shapes[what].fits.test(piece))
        continue
      found[what] = piece
      if (match(token + 1, at + length)) return true
      delete found[what]
    }
    return false
  }
  if (!match(0, 0)) return null
  const year =
    found.year === undefined ? null : Number(found.year.length === 2 ? `20${found.year}` : found.year)
  return {
    pattern: pattern.text,
    subject: found.subject?.toUpperCase() ?? null,
    number: found.number?.toUpperCase() ?? null,
    section: found.section ?? null,
    year,
    season: found.season === undefined ? null : present(pattern.seasons[found.season.toUpperCase()]),
    reference: found.reference ?? null,
  }
}
/** Reads a code by the first pattern it fits. */
export function readCode(code: string, patterns: readonly CodePattern[]): CodeReading | null {
  for (const pattern of patterns) {
    const reading = readByPattern(code, pattern)
    if (reading) return reading
  }
  return null
}

/** Whether two codes are of one course: read alike by the patterns, or the one is the other's old code. */
export function areOneCourse(
  one: string,
  other: string,
  { patterns, mapped }: { patterns: readonly CodePattern[]; mapped: readonly { from: string; to: string }[] },
): boolean {
  const [first, second] = [codeKey(one, patterns), codeKey(other, patterns)]
  const pairs = mapped.map(({ from, to }) => [codeKey(from, patterns), codeKey(to, patterns)])
  return (
    (first === second && first !== '') ||
    pairs.some(([from, to]) => (from === first && to === second) || (from === second && to === first))
  )
}
/** What stays of a code when its form changes: subject and number, `HYD 240`; without a pattern, its letters and digits. */
export function codeKey(code: string, patterns: readonly CodePattern[]): string {
  const reading = readCode(code, patterns)
  if (reading?.subject && reading.number) return `${reading.subject} ${reading.number}`
  if (reading?.number) return reading.number
  const [, letters, digits] = /^\s*(\p{L}{2,8})[ \-_./]*(\d{2,5}\p{L}?)/u.exec(code) ?? []
  return letters && digits
    ? `${letters} ${digits}`.toUpperCase()
    : code
        .toUpperCase()
        .replace(/[^\p{L}\d]+/gu, ' ')
        .trim()
}

/** The season that a term is named after, else that of its first day (months as in the north: common practice, no source). */
export function seasonOf(term: { name: string; classesFrom: string }): Season {
  const named =
    seasons.find(season => term.name.toLowerCase().includes(season)) ??
    (/\bfall\b/i.test(term.name) ? 'autumn' : undefined)
  if (named) return named
  const month = Number(term.classesFrom.slice(5, 7))
  if (month <= 2) return 'winter'
  if (month <= 4) return 'spring'
  return month <= 7 ? 'summer' : 'autumn'
}
/** Where the code of a course names another term than the one it is in: both readings, as words. Null where they agree, or the code names none. */
export function termDisagreement(
  reading: CodeReading | null,
  term: { name: string; classesFrom: string },
): { code: string; term: string } | null {
  if (!reading || (reading.year === null && reading.season === null)) return null
  const year = Number(term.classesFrom.slice(0, 4))
  const season = seasonOf(term)
  if (
    (reading.year === null || reading.year === year) &&
    (reading.season === null || reading.season === season)
  )
    return null
  return {
    code: [reading.season, reading.year].filter(Boolean).join(' '),
    term: `${term.name}, from ${term.classesFrom}`,
  }
}
