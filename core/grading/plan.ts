import { NIL } from 'uuid'
import { z } from 'zod'
import { matchNamed } from '../carry/match'
import type { TenThousandths } from './points'
import { plainCategory, plainRules, type CategoryLine, type CategoryRules, type GradeRules } from './rules'

const key = z.uuid()
const points = z.int().min(0).max(99_999_999_9999)
const drops = z.int().min(0, 'Not below 0.').max(999)
/** What is decided of one category, by the key that it will have in the shell. */
const categoryChange = z
  .object({
    title: z.string().trim().min(1, 'The category needs a name.').max(200),
    weight: points,
    within: z.enum(['points', 'equal']),
    dropLowest: drops,
    dropHighest: drops,
    exempt: z.boolean(),
  })
  .partial()
/** The grade rules of a course have no key of their own. */
export const rulesKey = NIL
export const gradesDecisions = z.object({
  /** How grades are reckoned; null: as the shell has it, or where it has nothing, as the source has it. */
  rules: z
    .object({
      by: z.enum(['weights', 'points']),
      ungraded: z.enum(['skip', 'zero']),
      decimals: z.int().min(0).max(20),
      scale: z.array(z.object({ from: points, letter: z.string().trim().min(1).max(40) })),
    })
    .nullable()
    .default(null),
  /** Which category of the shell one of the sources meets; null: none. */
  pairs: z.record(key, key.nullable()).default({}),
  /** Whose rules stand where both sides have a category, by the shell's key. */
  whose: z.record(key, z.enum(['source', 'shell'])).default({}),
  categories: z.record(key, categoryChange).default({}),
  /** Categories that the plan adds, by a key of their own. */
  added: z.record(key, z.string().trim().min(1, 'The category needs a name.').max(200)).default({}),
  /** Categories whose weight stays when the others are made to reach 100. */
  held: z.array(key).default([]),
  /** What is decided of one item: the category (by the shell's key; null: none), and whether it counts. */
  items: z
    .record(key, z.object({ category: key.nullable(), exempt: z.boolean(), extra: z.boolean() }).partial())
    .default({}),
  /** Column order, by the keys in the shell; what is not named follows as it stands. */
  order: z.array(key).default([]),
})
export type GradesDecisions = z.output<typeof gradesDecisions>
export const noGrades: GradesDecisions = {
  rules: null,
  pairs: {},
  whose: {},
  categories: {},
  added: {},
  held: [],
  items: {},
  order: [],
}

/** A category as the shell will have it. */
export interface PlannedCategory extends CategoryRules {
  /** The key that it will have. */
  readonly lineage: string
  readonly title: string
  readonly weight: TenThousandths | null
  readonly fixed: boolean
  readonly source: CategoryLine | null
  readonly shell: CategoryLine | null
  /** Both have it with other rules, and nobody has said whose stand. */
  readonly settle: boolean
  /** Whether the shell's own is written over. */
  readonly changes: boolean
}
export interface PlannedGrades {
  readonly rules: GradeRules
  /** What the shell reckons by now is written over. */
  readonly changesRules: boolean
  readonly rulesFrom: 'plan' | 'shell' | 'source' | 'nobody'
  /** Both have rules that differ, and nobody has said which stand. */
  readonly rulesSettle: boolean
  /** In column order. */
  readonly categories: readonly PlannedCategory[]
  /** The key in the shell of a category of the sources; null where it does not come. */
  readonly inShell: ReadonlyMap<string, string>
  /** Of those that are not exempt. */
  readonly sum: TenThousandths
}

export interface GradesInput {
  /** Categories of all sources in their order, and the rules of the first that has any. */
  readonly sources: readonly CategoryLine[]
  readonly sourceRules: GradeRules | null
  readonly shell: readonly CategoryLine[]
  readonly shellRules: GradeRules | null
  /** Whether a category of the sources comes: it is used by what is carried, or everything is. */
  readonly comes: (lineage: string) => boolean
  readonly decisions: GradesDecisions
  /** The sources' rules as the last run saw them, in words by key: what has not changed since is not asked again. */
  readonly seen: ReadonlyMap<string, string>
}
const rulesIn = ({ within, dropLowest, dropHighest, exempt }: CategoryRules): CategoryRules => ({
  within,
  dropLowest,
  dropHighest,
  exempt,
})
const same = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other)
const valuesOf = (line: CategoryLine) => ({ title: line.title, weight: line.weight, ...rulesIn(line) })
/** A category that says nothing of its own yet: a template's, waiting for its weight. */
const isBlank = (line: CategoryLine): boolean => !line.weight && same(rulesIn(line), plainCategory)

/**
 * How grades will be reckoned in the shell. What the shell has stays unless one says otherwise; where it says nothing yet, the source's comes.
 * What the institution fixed stays whatever one says.
 */
export function plannedGrades(input: GradesInput): PlannedGrades {
  const { sources, shell, decisions } = input
  const matches = matchNamed(sources, shell, decisions.pairs)
  const partner = new Map([...matches.values()].map(match => [match.shell, match.source]))
  const ofSources = new Map(sources.map(line => [line.lineage, line]))
  const inShell = new Map<string, string>()

  const isSeen = (source: CategoryLine): boolean =>
    input.seen.get(source.lineage) === JSON.stringify(valuesOf(source))
  const there = shell.map((line): PlannedCategory => {
    const source = ofSources.get(partner.get(line.lineage) ?? '') ?? null
    if (source) inShell.set(source.lineage, line.lineage)
    const differ =
      source !== null && !same({ ...valuesOf(source), title: '' }, { ...valuesOf(line), title: '' })
    const whose = decisions.whose[line.lineage] ?? (source && isBlank(line) ? 'source' : 'shell')
    const from = source && whose === 'source' ? { ...valuesOf(source), title: line.title } : valuesOf(line)
    const wanted = line.fixed ? valuesOf(line) : { ...from, ...decisions.categories[line.lineage] }
    const isSaid =
      decisions.whose[line.lineage] !== undefined || decisions.categories[line.lineage] !== undefined
    return {
      ...wanted,
      lineage: line.lineage,
      fixed: line.fixed,
      source,
      shell: line,
      settle: differ && !line.fixed && !isBlank(line) && !isSaid && !isSeen(source),
      changes: !same(wanted, valuesOf(line)),
    }
  })
  const taken = new Set(shell.map(line => line.lineage))
  const coming = sources
    .filter(line => !matches.has(line.lineage) && input.comes(line.lineage) && !taken.has(line.lineage))
    .map((line): PlannedCategory => {
      inShell.set(line.lineage, line.lineage)
      return {
        ...valuesOf(line),
        ...decisions.categories[line.lineage],
        lineage: line.lineage,
        fixed: false,
        source: line,
        shell: null,
        settle: false,
        changes: false,
      }
    })
  const added = Object.entries(decisions.added).map(([lineage, title]): PlannedCategory => ({
    ...plainCategory,
    weight: null,
    ...decisions.categories[lineage],
    title: decisions.categories[lineage]?.title ?? title,
    lineage,
    fixed: false,
    source: null,
    shell: null,
    settle: false,
    changes: false,
  }))
  const rank = new Map(decisions.order.map((lineage, at) => [lineage, at]))
  const categories = [...there, ...coming, ...added]
    .map((line, at) => ({ line, at: rank.get(line.lineage) ?? decisions.order.length + at }))
    .sort((one, other) => one.at - other.at)
    .map(({ line }) => line)
  return { ...plannedRules(input), categories, inShell, sum: sumOf(categories) }
}
const sumOf = (categories: readonly PlannedCategory[]): TenThousandths =>
  categories.reduce((sum, line) => sum + (line.exempt ? 0 : (line.weight ?? 0)), 0)
function plannedRules({
  sourceRules,
  shellRules,
  decisions,
  seen,
}: GradesInput): Pick<PlannedGrades, 'rules' | 'changesRules' | 'rulesFrom' | 'rulesSettle'> {
  const rules = decisions.rules ?? shellRules ?? sourceRules
  const from = (): PlannedGrades['rulesFrom'] => {
    if (decisions.rules) return 'plan'
    if (shellRules) return 'shell'
    return sourceRules ? 'source' : 'nobody'
  }
  return {
    rules: rules ?? plainRules,
    changesRules: rules !== null && !same(rules, shellRules),
    rulesFrom: from(),
    rulesSettle:
      !decisions.rules &&
      seen.get(rulesKey) !== JSON.stringify(sourceRules) &&
      shellRules !== null &&
      sourceRules !== null &&
      !same(shellRules, sourceRules),
  }
}

/** An item as far as it is graded. */
interface GradedItem {
  readonly lineage: string
  readonly category: string | null
  readonly points: TenThousandths | null
  readonly exempt: boolean
  readonly extra: boolean
}
/** What an item counts for in the shell: its category there, and whether it counts. */
export function gradedAs(
  item: GradedItem,
  grades: Pick<PlannedGrades, 'inShell'>,
  { items }: GradesDecisions,
): { category: string | null; exempt: boolean; extra: boolean } {
  const own = items[item.lineage]
  const asWas = item.category === null ? null : (grades.inShell.get(item.category) ?? null)
  const category = own?.category === undefined ? asWas : own.category
  return { category, exempt: own?.exempt ?? item.exempt, extra: own?.extra ?? item.extra }
}
/** Whether somebody must say in which category an item counts: it has points, it counts, and it is in none. */
export const needsCategory = (
  { points: worth }: Pick<GradedItem, 'points'>,
  { category, exempt }: { category: string | null; exempt: boolean },
): boolean => category === null && !exempt && (worth ?? 0) > 0
/** What the next run knows of the sources' rules: as they were seen by this one. */
export const rulesSeen = (
  sources: readonly CategoryLine[],
  rules: GradeRules | null,
): { key: string; type: 'category' | 'rules'; text: string }[] => [
  ...sources.map(line => ({
    key: line.lineage,
    type: 'category' as const,
    text: JSON.stringify(valuesOf(line)),
  })),
  ...(rules ? [{ key: rulesKey, type: 'rules' as const, text: JSON.stringify(rules) }] : []),
]
