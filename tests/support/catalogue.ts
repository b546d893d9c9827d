import type { Candidate, CodeKnowledge } from '../../core/pairing/suggest'
import { codePattern, type CodePattern } from '../../core/pairing/codes'
import { dice } from '../../demo/make/dice'

/** A made-up catalogue: courses over four years, the shells of a new term, and which earlier courses each shell really goes on from (none: a new course). */
export interface Catalogue {
  courses: Candidate[]
  shells: { shell: Candidate; kind: ShellKind; right: ReadonlySet<string> }[]
  knowledge: CodeKnowledge
}
export type ShellKind =
  'as before' | 'renumbered' | 'renamed' | 'renumbered and renamed' | 'split' | 'merged' | 'new'

const subjects = ['HYD', 'MET', 'GEO', 'NAV', 'ENG', 'BIO', 'CHE', 'LAW', 'ART', 'STAT', 'ECON', 'HIS']
const topics = [
  'Tides',
  'Currents',
  'Weather',
  'Charts',
  'Harbours',
  'Sediments',
  'Coasts',
  'Ice',
  'Rivers',
  'Estuaries',
  'Signals',
  'Sails',
  'Engines',
  'Hulls',
  'Fish',
  'Algae',
  'Salts',
  'Metals',
  'Treaties',
  'Trade',
  'Maps',
  'Numbers',
  'Samples',
  'Voyages',
  'Islands',
  'Lights',
  'Ropes',
  'Winds',
  'Waves',
  'Stars',
]
const ways = [
  'Introduction to',
  'Applied',
  'Advanced',
  'Field Methods in',
  'History of',
  'Topics in',
  'Theory of',
  'Laboratory in',
  'Seminar in',
  'Principles of',
]
const terms = [
  '2023-09-04',
  '2024-01-08',
  '2024-09-03',
  '2025-01-07',
  '2025-09-02',
  '2026-01-06',
  '2026-09-02',
]
const start = '2027-01-06'

export function makeCatalogue(seed: number, shells: number): Catalogue {
  const roll = dice(seed)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(roll() * list.length)]!
  const chance = (share: number): boolean => roll() < share
  const courses: Candidate[] = []
  const made: Catalogue['shells'] = []
  const mapped: { from: string; to: string }[] = []
  const used = new Set<string>()
  let ids = 0
  const code = (subject: string, number: number, form: number): string =>
    [`${subject} ${number}`, `${subject}-${number}`, `${subject}${number}`][form]!
  const freshNumber = (subject: string): number => {
    for (;;) {
      const number = 100 + Math.floor(roll() * 400)
      if (!used.has(subject + number)) {
        used.add(subject + number)
        return number
      }
    }
  }
  const titleOf = (): string =>
    `${pick(ways)} ${pick(topics)}${chance(0.3) ? ` and ${pick(topics)}` : ''}${chance(0.12) ? ' I' : ''}`
  /** A title said otherwise: a word more, a word less, or another way in. */
  const retitled = (title: string): string =>
    pick([
      `${title}: Practice`,
      title.replace(/^\S+( to| in| of)? /, ''),
      title.replace(/^\S+/, pick(['Modern', 'Applied', 'Essential'])),
      `${title} for Mariners`,
      `${title} for Mariners`,
      titleOf(),
    ])
  /** A line of courses through the terms; gives back those of its last term. */
  const offer = (subject: string, number: number, title: string, staff: string[]): { last: Candidate[] } => {
    // One in five goes on from the same season a year ago, the others from the term before.
    const yearly = chance(0.2)
    const offered: Candidate[][] = []
    const forerunners = (term: string): Candidate[] =>
      (yearly
        ? offered.find(
            list =>
              Math.abs(Date.parse(term) - Date.parse(list[0]!.termStarts) - 365 * 86_400_000) <
              30 * 86_400_000,
          )
        : undefined) ??
      offered.at(-1) ??
      []
    const offset = chance(0.5) ? 0 : 1
    let form = Math.floor(roll() * 3)
    for (const [at, term] of terms.entries()) {
      if ((at % 2 !== offset && chance(0.6)) || chance(0.12)) continue
      if (chance(0.08)) form = Math.floor(roll() * 3)
      const before = forerunners(term)[0]
      const sections = chance(0.25) ? 2 + Math.floor(roll() * 2) : 1
      const now = Array.from({ length: sections }, (_, section) => ({
        id: `c${ids++}`,
        code: code(subject, number, form),
        section: String(section + 1).padStart(2, '0'),
        title,
        termStarts: term,
        instructors: [staff[section % staff.length]!],
        items: chance(0.06) ? 0 : 40,
        filledFrom: before && chance(0.8) ? before.id : null,
      }))
      courses.push(...now)
      offered.push(now)
    }
    return { last: forerunners(start).filter(course => course.items > 0) }
  }
  const shellOf = (
    subject: string,
    number: number,
    title: string,
    teacher: string,
    section = '01',
  ): Candidate => ({
    id: `s${ids++}`,
    code: code(subject, number, Math.floor(roll() * 3)),
    section,
    title,
    termStarts: start,
    instructors: chance(0.05) ? [] : [teacher],
    items: chance(0.1) ? 5 : 0,
  })
  const rightOf = (last: readonly Candidate[], teacher: string): Set<string> => {
    const own = last.filter(course => course.instructors.includes(teacher))
    return new Set((own.length > 0 ? own : last).map(course => course.id))
  }

  while (made.length < shells) {
    const subject = pick(subjects)
    const people = Array.from(
      { length: 1 + Math.floor(roll() * 3) },
      () => `${subject}-p${Math.floor(roll() * 40)}`,
    )
    const number = freshNumber(subject)
    const title = titleOf()
    const { last } = offer(subject, number, title, people)
    // Courses that are not taught this time stand about, and look like others.
    if (last.length === 0 || chance(0.25)) continue
    const teacher = chance(0.25) ? `${subject}-p${Math.floor(roll() * 40)}` : people[0]!
    const kind = roll()
    const add = (shell: Candidate, what: ShellKind, right: ReadonlySet<string>): void => {
      made.push({ shell, kind: what, right })
    }
    const renumbered = (to: number): void => {
      if (chance(0.5)) mapped.push({ from: `${subject} ${number}`, to: `${subject} ${to}` })
    }
    if (kind < 0.62)
      add(shellOf(subject, number, title, teacher, last[0]!.section), 'as before', rightOf(last, teacher))
    else if (kind < 0.71) {
      const to = freshNumber(subject)
      renumbered(to)
      add(shellOf(subject, to, title, teacher), 'renumbered', rightOf(last, teacher))
    } else if (kind < 0.79)
      add(shellOf(subject, number, retitled(title), teacher), 'renamed', rightOf(last, teacher))
    else if (kind < 0.83) {
      const to = freshNumber(subject)
      renumbered(to)
      add(shellOf(subject, to, retitled(title), teacher), 'renumbered and renamed', rightOf(last, teacher))
    } else if (kind < 0.87)
      for (const part of [' I', ' II']) {
        const to = freshNumber(subject)
        renumbered(to)
        add(shellOf(subject, to, title.replace(/ I$/, '') + part, teacher), 'split', rightOf(last, teacher))
      }
    else if (kind < 0.91) {
      const other = offer(subject, freshNumber(subject), titleOf(), people)
      const to = freshNumber(subject)
      renumbered(to)
      add(
        shellOf(subject, to, `${title} with ${pick(topics)}`, teacher),
        'merged',
        new Set([...rightOf(last, teacher), ...rightOf(other.last, teacher)]),
      )
    }
    // A new course now and then takes over the number of one that is no longer taught.
    else
      add(
        shellOf(subject, chance(0.15) ? number : freshNumber(subject), titleOf(), pick(people)),
        'new',
        new Set(),
      )
  }
  const pattern = codePattern('{subject} {number}', {}) as CodePattern
  return { courses, shells: made.slice(0, shells), knowledge: { patterns: [pattern], mapped } }
}
