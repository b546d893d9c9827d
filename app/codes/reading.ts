import {
  codeKey,
  readCode,
  seasons,
  termDisagreement,
  type CodePattern,
  type CodeReading,
  type Season,
} from '~~/core/pairing/codes'
import type { CodeRules } from '~~/shared/api/codes'

type Seasons = CodeRules['patterns'][number]['seasons']
/** `S spring, F autumn` */
export const spelled = (spellings: Seasons): string =>
  Object.entries(spellings)
    .map(([word, season]) => `${word} ${season}`)
    .join(', ')

const isSeason = (text: string | undefined): text is Season => seasons.some(season => season === text)
/** What is typed as `S spring, F autumn`, as spellings; or what is wrong with it. */
export function spellingsOf(text: string): { seasons: Record<string, Season> } | { problem: string } {
  const found: Record<string, Season> = {}
  for (const part of text.split(',').map(each => each.trim())) {
    if (part === '') continue
    const [, word, season] = /^(\S{1,6})\s*[= ]\s*(\S+)$/.exec(part) ?? []
    if (!word || !isSeason(season))
      return { problem: `“${part}”: write a spelling and a season (${seasons.join(', ')}), like S spring.` }
    found[word] = season
  }
  return { seasons: found }
}

/** `subject HYD, number 240, term spring 2027` */
function readingText({ subject, number, section, season, year, reference }: CodeReading): string {
  const term = [season, year].filter(Boolean).join(' ')
  const parts = { subject, number, section, term, reference }
  return Object.entries(parts)
    .filter(([, text]) => text)
    .map(([name, text]) => `${name} ${text}`)
    .join(', ')
}
/** What patterns make of a code. */
export interface TriedCode {
  /** Its parts in words; null where no pattern fits. */
  readonly says: string | null
  /** What two codes of one course have in common. */
  readonly key: string
  /** The code names another term than its course's. */
  readonly wrong: { code: string; term: string } | null
}
export function tryCode(
  code: string,
  term: { name: string; classesFrom: string },
  patterns: readonly CodePattern[],
): TriedCode {
  const reading = readCode(code, patterns)
  return {
    says: reading && readingText(reading),
    key: codeKey(code, patterns),
    wrong: termDisagreement(reading, term),
  }
}
