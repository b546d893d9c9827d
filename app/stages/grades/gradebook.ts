import type { OutlineNode } from '~~/core/course/outline'
import { pointsText, type TenThousandths } from '~~/core/grading/points'
import type { CategoryRules, GradeRules } from '~~/core/grading/rules'
import { reckon, type GradesTold } from '~~/core/grading/reckon'
import { readGradeCase } from '~~/core/grading/scheme'

/** A category as far as grades are reckoned by it. */
export interface GradebookCategory extends CategoryRules {
  readonly lineage: string
  readonly title: string
  readonly weight: TenThousandths | null
}
/** An item that counts, with its category. */
export interface GradebookItem {
  readonly lineage: string
  readonly title: string
  readonly points: TenThousandths
  readonly category: string | null
  readonly exempt: boolean
  readonly extra: boolean
}
/** A made-up student, and their scores by item: points as text, `excused`, or null where nothing is graded. */
export interface SampleStudent {
  readonly id: string
  readonly name: string
  readonly scores: Readonly<Record<string, string | null>>
}

export const gradedItems = (nodes: readonly OutlineNode[]): GradebookItem[] =>
  nodes.flatMap(node =>
    node.type === 'item' && (node.points ?? 0) > 0
      ? [{ ...node, points: node.points ?? 0, category: node.category }]
      : [],
  )

/** How each sample student does: a share of the points by how far the term is (0 to 1), and what they never hand in. */
const manners = [
  { name: 'Steady', share: (_: number) => 0.8, misses: (_: number) => false },
  { name: 'Strong at first', share: (at: number) => 1 - 0.45 * at, misses: (_: number) => false },
  { name: 'Better and better', share: (at: number) => 0.55 + 0.43 * at, misses: (_: number) => false },
  { name: 'Hands in two of three', share: (_: number) => 0.9, misses: (index: number) => index % 3 === 2 },
]
/** Made-up students with made-up scores, the same each time. Nobody's are used. */
export const sampleStudents = (items: readonly GradebookItem[]): SampleStudent[] =>
  manners.map(({ name, share, misses }, at) => ({
    id: `sample-${at + 1}`,
    name,
    scores: Object.fromEntries(
      items.map(({ lineage, points }, index) => {
        const wobble = ((index * 7 + at * 3) % 5) - 2
        const part = share(items.length > 1 ? index / (items.length - 1) : 0) + wobble / 50
        const score = Math.round((Math.max(0, Math.min(1, part)) * points) / 5000) * 5000
        return [lineage, misses(index) ? null : pointsText(score)]
      }),
    ),
  }))

/** What the students come to by some rules. A text says why they cannot be reckoned by. */
export function gradesBy(
  rules: GradeRules,
  categories: readonly GradebookCategory[],
  items: readonly GradebookItem[],
  students: readonly SampleStudent[],
): GradesTold | string {
  const keys = new Set(categories.map(category => category.lineage))
  const counted = items.filter(item => item.category !== null && keys.has(item.category))
  const ids = new Set(counted.map(item => item.lineage))
  const read = readGradeCase({
    scheme: {
      by: rules.by,
      ungraded: rules.ungraded,
      decimals: rules.decimals,
      scale: rules.scale.map(({ from, letter }) => ({ from: pointsText(from), letter })),
      categories: categories.map(({ lineage, title, weight, within, dropLowest, dropHighest, exempt }) => ({
        key: lineage,
        title,
        weight: pointsText(weight ?? 0),
        within,
        dropLowest,
        dropHighest,
        exempt,
      })),
      items: counted.map(({ lineage, category, points, exempt, extra }) => ({
        id: lineage,
        category,
        max: pointsText(points),
        exempt,
        extra,
      })),
    },
    students: students.map(({ id, scores }) => ({
      id,
      scores: Object.fromEntries(Object.entries(scores).filter(([lineage]) => ids.has(lineage))),
    })),
  })
  return 'fault' in read ? `${read.fault.field} ${read.fault.message}` : reckon(read.case)
}
/** Weights made to reach 100, the held ones kept; or, by a text, why that cannot be. */
export function weightsOfHundred(
  categories: readonly GradebookCategory[],
  held: readonly string[],
  equal: boolean,
): Record<string, TenThousandths> | string {
  const read = readGradeCase({
    scheme: {
      categories: categories.map(({ lineage, weight, exempt }) => ({
        key: lineage,
        weight: pointsText(weight ?? 0),
        exempt,
      })),
    },
    rescale: { to: '100', hold: held.filter(key => categories.some(each => each.lineage === key)), equal },
  })
  if ('fault' in read)
    return 'A weight that is held has more than two digits after the point. Round it first.'
  const told = reckon(read.case)
  if (told.conflict) return told.conflict
  return Object.fromEntries(told.weights.map(({ key, weight }) => [key, Math.round(Number(weight) * 10_000)]))
}
