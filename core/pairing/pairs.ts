import { codeText } from '../course/code-text'
import { readLimits } from '../formats/limits'
import { readTable } from '../formats/sheet/table'
import { codeKey, type CodePattern } from './codes'

/** A line of a table of pairs, as it is written there. `number` counts the header as row 1. */
export interface PairLine {
  readonly number: number
  readonly source: string
  /** The term of the source by its code or name; empty: the latest before the shell's. */
  readonly sourceTerm: string
  readonly shell: string
}
/** Why a table of pairs cannot be read: the columns that it lacks. */
export interface ColumnsMissing {
  readonly missing: readonly string[]
}
export const pairColumns = { source: 'source', sourceTerm: 'source term', shell: 'shell' } as const
export const pairsAtMost = 5000

/**
 * Reads a table of pairs (CSV): `source`, `shell` and, where it matters, `source term`; in any order, other columns are passed over.
 * @throws FormatRefusal where it is no table.
 */
export function readPairs(bytes: Uint8Array): readonly PairLine[] | ColumnsMissing {
  const at: Partial<Record<keyof typeof pairColumns, number>> = {}
  const lines: PairLine[] = []
  readTable(
    'The table',
    bytes,
    { ...readLimits, rows: pairsAtMost + 1 },
    (cells, number) => {
      if (number === 1) return
      const cell = (column: keyof typeof pairColumns): string => cells[at[column] ?? -1]?.trim() ?? ''
      const line = { number, source: cell('source'), sourceTerm: cell('sourceTerm'), shell: cell('shell') }
      if (line.source || line.shell) lines.push(line)
    },
    header => {
      const names = header.map(name => name.toLowerCase().replace(/[\s_-]+/g, ' '))
      for (const column of Object.keys(pairColumns) as (keyof typeof pairColumns)[]) {
        const found = names.indexOf(pairColumns[column])
        if (found >= 0) at[column] = found
      }
    },
  )
  const missing = (['source', 'shell'] as const).filter(column => at[column] === undefined)
  return missing.length > 0 ? { missing } : lines
}

/** A course as a line may name it. */
export interface NamedCourse {
  readonly id: string
  /** The registrar's identifier. */
  readonly sourceId: string
  readonly code: string
  readonly section: string
  readonly term: { readonly code: string; readonly name: string; readonly classesFrom: string }
  /** Whether it holds anything to roll. */
  readonly holds: boolean
}
/** The courses that a line means, or why it means none. */
export type ResolvedPair =
  { readonly source: string; readonly shell: string } | { readonly why: string; readonly shell?: string }

const squeezed = (text: string): string => text.toLowerCase().replace(/[\s._/-]+/g, '')

/** Courses that a text names: by the registrar's identifier, as code and section, or by the code alone. */
function named(
  text: string,
  courses: readonly NamedCourse[],
  patterns: readonly CodePattern[],
): readonly NamedCourse[] {
  const wanted = squeezed(text)
  const whole = courses.filter(course => course.sourceId === text || squeezed(codeText(course)) === wanted)
  if (whole.length > 0) return whole
  const key = codeKey(text, patterns)
  return courses.filter(course => squeezed(course.code) === wanted || codeKey(course.code, patterns) === key)
}
const only = <T>(found: readonly T[]): T | null => (found.length === 1 ? (found[0] ?? null) : null)

/** Finds the courses that lines of a table mean, among those a person may use. A shell is rolled into once: of two lines for one, the second is told. */
export function resolvePairs(
  lines: readonly PairLine[],
  courses: readonly NamedCourse[],
  term: { readonly code: string; readonly name: string; readonly classesFrom: string },
  patterns: readonly CodePattern[],
): ResolvedPair[] {
  const shells = courses.filter(course => course.term.code === term.code)
  const earlier = courses
    .filter(course => course.term.classesFrom < term.classesFrom && course.holds)
    .sort((a, b) => b.term.classesFrom.localeCompare(a.term.classesFrom))
  const taken = new Map<string, number>()
  const sourcesOf = ({ source, sourceTerm }: PairLine): readonly NamedCourse[] => {
    const wanted = sourceTerm.toLowerCase()
    const among = earlier.filter(
      course => !wanted || [course.term.code, course.term.name].some(text => text.toLowerCase() === wanted),
    )
    const found = named(source, among, patterns)
    return found.filter(course => course.term.code === found[0]?.term.code)
  }
  return lines.map(line => {
    if (!line.shell) return { why: 'The column “shell” is empty in this line.' }
    const into = named(line.shell, shells, patterns)
    const shell = only(into)
    if (!shell) return { why: notOne('shell', line.shell, into, term.name) }
    const before = taken.get(shell.id)
    taken.set(shell.id, line.number)
    if (before !== undefined) return { why: `Line ${before} rolls into ${codeText(shell)} already.` }
    if (!line.source) return { why: 'The column “source” is empty in this line.', shell: shell.id }
    const from = sourcesOf(line)
    const source = only(from)
    const where = line.sourceTerm || `a term before ${term.name}`
    return source
      ? { source: source.id, shell: shell.id }
      : { why: notOne('source', line.source, from, where), shell: shell.id }
  })
}
function notOne(
  what: 'shell' | 'source',
  text: string,
  several: readonly NamedCourse[],
  where: string,
): string {
  const [first] = several
  if (!first)
    return what === 'shell'
      ? `No shell of ${where} that you may roll into is called “${text}”.`
      : `No course of ${where} that you may roll from, and that holds anything, is called “${text}”.`
  return `“${text}” names ${several.length} sections of ${first.term.name}: write which, such as ${codeText(first)}.`
}
