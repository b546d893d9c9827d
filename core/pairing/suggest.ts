import { present } from '../present'
import { dayOf } from '../calendar/day'
import { codeKey, type CodePattern } from './codes'

/** What pairing looks at in a course. */
export interface Candidate {
  readonly id: string
  readonly code: string
  readonly section: string
  readonly title: string
  readonly termStarts: string
  readonly instructors: readonly string[]
  readonly items: number
  /** Course from which this one was last filled, where it was. */
  readonly filledFrom?: string | null
}
/** What is known of codes: how they are read, and which new one stands for an old one. */
export interface CodeKnowledge {
  readonly patterns: readonly CodePattern[]
  readonly mapped: readonly { readonly from: string; readonly to: string }[]
}
export const noKnowledge: CodeKnowledge = { patterns: [], mapped: [] }

export type Sureness = 'sure' | 'likely' | 'possible'
/** A source for a shell; `chance`: how often such a suggestion is right, from 0 to 1. */
export interface Suggestion {
  readonly source: string
  readonly chance: number
  readonly sureness: Sureness
  readonly reasons: string[]
}

/**
 * How much each sign counts, and how easily no course at all is the source. Fitted on made-up catalogues by
 * `npm run bench:pairing -- --fit` (conditional logit; docs/pairing.md), not guessed.
 */
export const weights = {
  none: 8.06,
  code: 5.98,
  mapped: 7.56,
  title: 8.84,
  teacher: 1.73,
  section: 1.71,
  latest: 0.15,
  history: 2.33,
  years: -2.96,
}
export type Signs = Record<Exclude<keyof typeof weights, 'none'>, number>

const fillers = new Set([
  'a',
  'an',
  'and',
  'for',
  'from',
  'in',
  'of',
  'on',
  'the',
  'to',
  'with',
  'intro',
  'introduction',
  'introductory',
])
const wordsOf = (title: string): string[] =>
  title
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .split(/[^\p{L}\d]+/u)
    .filter(word => word !== '' && !fillers.has(word))
/** Words that two titles share (Dice), from 0 to 1. Numbers are not words: another one (I, II) halves it, one where there was none (a course made into two) costs little. */
function alike(a: readonly string[], b: readonly string[]): number {
  if (a.length === 0 || b.length === 0) return 0
  const isNumber = (word: string): boolean => /^(\d+|i{1,3}|iv|v)$/.test(word)
  const [one, two] = [a, b].map(words => words.filter(word => !isNumber(word))) as [string[], string[]]
  const [first, second] = [a, b].map(words => words.filter(isNumber).join(' ')) as [string, string]
  if (one.length === 0 || two.length === 0) return 0
  const dice = (2 * one.filter(word => two.includes(word)).length) / (one.length + two.length)
  if (first === second) return dice
  return first === '' || second === '' ? dice * 0.85 : dice / 2
}

interface Known {
  readonly course: Candidate
  readonly key: string
  readonly words: readonly string[]
}

/** Courses made ready to be looked through for many shells. */
export interface SourceIndex {
  readonly knowledge: CodeKnowledge
  readonly byKey: Map<string, Known[]>
  readonly byWord: Map<string, Known[]>
  readonly byTeacher: Map<string, Known[]>
  readonly byId: Map<string, Known>
}
export function indexSources(
  courses: readonly Candidate[],
  knowledge: CodeKnowledge = noKnowledge,
): SourceIndex {
  const index: SourceIndex = {
    knowledge,
    byKey: new Map(),
    byWord: new Map(),
    byTeacher: new Map(),
    byId: new Map(),
  }
  const put = (map: Map<string, Known[]>, key: string, known: Known): void => {
    const list = map.get(key)
    if (list) list.push(known)
    else map.set(key, [known])
  }
  for (const course of courses) {
    const known = knownOf(course, knowledge)
    index.byId.set(course.id, known)
    if (course.items === 0) continue
    put(index.byKey, known.key, known)
    for (const word of new Set(known.words)) put(index.byWord, word, known)
    for (const teacher of course.instructors) put(index.byTeacher, teacher, known)
  }
  return index
}
const knownOf = (course: Candidate, { patterns }: CodeKnowledge): Known => {
  return { course, key: codeKey(course.code, patterns), words: wordsOf(course.title) }
}

/** Words that more courses than this share tell nothing by themselves. */
const commonWord = 200

/** Courses that could be a shell's source, each with its signs. */
export function signsOf(shell: Candidate, index: SourceIndex): { course: Candidate; signs: Signs }[] {
  const own = knownOf(shell, index.knowledge)
  const old = new Set(
    index.knowledge.mapped
      .filter(entry => codeKey(entry.to, index.knowledge.patterns) === own.key)
      .map(entry => codeKey(entry.from, index.knowledge.patterns)),
  )
  const found = new Set<Known>(index.byKey.get(own.key))
  for (const key of old) for (const known of index.byKey.get(key) ?? []) found.add(known)
  for (const word of own.words) {
    const list = index.byWord.get(word) ?? []
    if (list.length <= commonWord) for (const known of list) found.add(known)
  }
  for (const teacher of shell.instructors)
    for (const known of index.byTeacher.get(teacher) ?? []) found.add(known)
  const earlier = [...found].filter(
    known => known.course.id !== shell.id && known.course.termStarts < shell.termStarts,
  )
  const lines = new Map<string, Known[]>()
  for (const known of earlier) lines.set(known.key, [...(lines.get(known.key) ?? []), known])
  const habits = new Map([...lines].map(([key, line]) => [key, habitOf(line, index)]))
  return earlier.map(({ course, key, words }) => {
    const { latest, passesOver } = present(habits.get(key))
    const isLatest = course.termStarts === latest
    const isYearAgo = Math.abs(dayOf(shell.termStarts) - dayOf(course.termStarts) - 365) <= 45
    return {
      course,
      signs: {
        code: Number(key === own.key),
        mapped: Number(old.has(key)),
        title: alike(words, own.words),
        teacher: Number(course.instructors.some(person => shell.instructors.includes(person))),
        section: Number(course.section !== '' && course.section === shell.section),
        latest: Number(isLatest),
        history: Number(passesOver === null ? false : passesOver ? isYearAgo : isLatest),
        years: Math.min(
          5,
          Math.max(0, Number(shell.termStarts.slice(0, 4)) - Number(course.termStarts.slice(0, 4))),
        ),
      },
    }
  })
}
/**
 * The latest term of a line of courses, and whether the line passed its nearest forerunner over when it was filled last (for the
 * same season a year ago) or went on from it; null where that is not known.
 */
function habitOf(line: readonly Known[], index: SourceIndex): { latest: string; passesOver: boolean | null } {
  const terms = [...new Set(line.map(known => known.course.termStarts))].sort()
  for (const { course } of [...line].sort((a, b) => b.course.termStarts.localeCompare(a.course.termStarts))) {
    const from = course.filledFrom ? index.byId.get(course.filledFrom)?.course.termStarts : undefined
    const nearest = terms[terms.indexOf(course.termStarts) - 1]
    if (from !== undefined && nearest !== undefined && from <= nearest)
      return { latest: present(terms.at(-1)), passesOver: from < nearest }
  }
  return { latest: present(terms.at(-1)), passesOver: null }
}
export const scoreOf = (signs: Signs, by: Record<keyof typeof weights, number> = weights): number =>
  (Object.keys(signs) as (keyof Signs)[]).reduce((sum, sign) => sum + signs[sign] * by[sign], 0)

/** Below this a course is not worth naming. */
const least = 0.3
const surenessOf = (chance: number): Sureness =>
  chance >= 0.9 ? 'sure' : chance >= 0.6 ? 'likely' : 'possible'

/**
 * Sources for a shell, the likeliest first. The chances of all courses and of "none of them" make one: a course that stands
 * alone is surer than one among equals.
 */
export function suggestSources(shell: Candidate, index: SourceIndex, most = 3): Suggestion[] {
  const rated = signsOf(shell, index)
    .map(entry => ({ ...entry, score: scoreOf(entry.signs) }))
    .sort(
      (a, b) =>
        b.score - a.score ||
        b.course.termStarts.localeCompare(a.course.termStarts) ||
        a.course.id.localeCompare(b.course.id),
    )
  const top = Math.max(weights.none, rated[0]?.score ?? 0)
  const total = rated.reduce((sum, entry) => sum + Math.exp(entry.score - top), Math.exp(weights.none - top))
  // Sections of one course in one term are one course, rolled by whoever taught them: choosing between them is no mistake.
  const group = ({ course, signs }: (typeof rated)[number]): string =>
    `${codeKey(course.code, index.knowledge.patterns)} ${course.termStarts} ${signs.teacher}`
  const chances = new Map<string, number>()
  for (const entry of rated)
    chances.set(group(entry), (chances.get(group(entry)) ?? 0) + Math.exp(entry.score - top) / total)
  return rated
    .slice(0, most)
    .map(entry => {
      const { course, signs } = entry
      const chance = present(chances.get(group(entry)))
      return { source: course.id, chance, sureness: surenessOf(chance), reasons: reasonsOf(signs, course) }
    })
    .filter(
      (entry, at) =>
        entry.chance >= least ||
        (at === 0 && entry.chance >= least / 2 && present(rated[0]).signs.code === 1),
    )
}

function reasonsOf(signs: Signs, course: Candidate): string[] {
  return [
    signs.code && `same code, ${course.code}`,
    signs.mapped && `${course.code} is its old code`,
    signs.title === 1 ? 'same title' : signs.title >= 0.5 && `like title, ${course.title}`,
    signs.teacher && 'same instructor',
    signs.section && `same section, ${course.section}`,
    signs.history && 'as old as the source last time',
  ].filter(reason => typeof reason === 'string')
}
/** The likeliest source, or null where none is worth naming. */
export const suggestSource = (shell: Candidate, index: SourceIndex): Suggestion | null =>
  suggestSources(shell, index, 1)[0] ?? null
