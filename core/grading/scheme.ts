import { z } from 'zod'
import { inOurWords } from '../schema-words'
import { compare, decimal, fraction, zero, type Fraction } from './fraction'

const number = z.string().transform((text, context) => {
  const value = decimal(text)
  if (value) return value
  context.addIssue({
    code: 'custom',
    message: 'must be decimal text such as "17.5", with at most four digits after the point',
  })
  return z.NEVER
})
const key = z.string().min(1, 'is empty')
const drops = z.int().min(0, 'must not be negative').default(0)
const category = z.object({
  key,
  title: z.string().default(''),
  weight: number,
  within: z.enum(['points', 'equal']).default('points'),
  dropLowest: drops,
  dropHighest: drops,
  exempt: z.boolean().default(false),
})
const item = z.object({
  id: key,
  category: z.string(),
  max: number,
  exempt: z.boolean().default(false),
  extra: z.boolean().default(false),
})
const scheme = z.object({
  by: z.enum(['weights', 'points']).default('weights'),
  ungraded: z.enum(['skip', 'zero']).default('skip'),
  decimals: z.int().min(0, 'must not be negative').max(20, 'must be at most 20').default(2),
  categories: z.array(category).default([]),
  items: z.array(item).default([]),
  scale: z.array(z.object({ from: number, letter: z.string() })).default([]),
})
const rescale = z.object({
  to: number,
  hold: z.array(z.string()).default([]),
  equal: z.boolean().default(false),
})
/** A score: points; excused; or (null) not graded. */
const score = z.union([z.null(), z.literal('excused'), number])
const student = z.object({ id: key, scores: z.record(z.string(), score).default({}) })
const gradeCase = z.object({
  scheme,
  rescale: rescale.nullish(),
  students: z.array(student).default([]),
})

/** Rules by which grades are reckoned. Order of categories and items is column order. */
export type Scheme = z.output<typeof scheme>
export type Category = z.output<typeof category>
export type Item = z.output<typeof item>
/** How weights are made to reach a sum: held ones keep theirs, the others share what is left. */
export type Rescale = z.output<typeof rescale>
export type Student = z.output<typeof student>
export interface GradeCase {
  scheme: Scheme
  rescale: Rescale | null
  students: readonly Student[]
}
/** What is wrong with a case, and where: `scheme.items[3].max`. */
export interface GradeFault {
  field: string
  message: string
}

const fieldOf = (path: readonly PropertyKey[]): string =>
  path
    .map((part, at) => (typeof part === 'number' ? `[${part}]` : `${at > 0 ? '.' : ''}${String(part)}`))
    .join('')
/** The first that stands there a second time. */
const secondAt = (keys: readonly string[]): number => keys.findIndex((each, at) => keys.indexOf(each) < at)
const isInHundredths = (value: Fraction): boolean => 100n % value.below === 0n

/** What the schema cannot say: what must fit together. Null where all does. */
function faultOf({ scheme: rules, rescale: wish, students }: z.output<typeof gradeCase>): GradeFault | null {
  const { categories, items, scale } = rules
  const keys = categories.map(each => each.key)
  const ids = items.map(each => each.id)
  const twice = (field: string, at: number, what: string): GradeFault | null =>
    at < 0 ? null : { field, message: `is the ${what} of another one too` }
  const sameKey = secondAt(keys)
  const sameId = secondAt(ids)
  const samePerson = secondAt(students.map(each => each.id))
  const homeless = items.findIndex(each => !keys.includes(each.category))
  const empty = items.findIndex(each => !each.extra && compare(each.max, zero) === 0)
  const rising = scale.findIndex((each, at) => at > 0 && compare(each.from, scale[at - 1]?.from ?? zero) >= 0)
  const last = scale.at(-1)
  const unheld = wish?.hold.findIndex(each => !keys.includes(each)) ?? -1
  const held = new Set(wish?.hold)
  const fine = categories.findIndex(
    each => !each.exempt && held.has(each.key) && !isInHundredths(each.weight),
  )
  const stranger = students.flatMap((each, at) =>
    Object.keys(each.scores)
      .filter(id => !ids.includes(id))
      .map(id => `students[${at}].scores.${id}`),
  )[0]
  const faults: (GradeFault | null)[] = [
    twice(`scheme.categories[${sameKey}].key`, sameKey, 'key'),
    twice(`scheme.items[${sameId}].id`, sameId, 'id'),
    homeless < 0
      ? null
      : { field: `scheme.items[${homeless}].category`, message: 'is not the key of a category' },
    empty < 0
      ? null
      : { field: `scheme.items[${empty}].max`, message: 'must be above 0 unless the item is extra' },
    rising < 0 ? null : { field: `scheme.scale[${rising}].from`, message: 'must be below the one before it' },
    last && compare(last.from, zero) !== 0
      ? { field: `scheme.scale[${scale.length - 1}].from`, message: 'must be 0: the scale ends there' }
      : null,
    unheld < 0 ? null : { field: `rescale.hold[${unheld}]`, message: 'is not the key of a category' },
    wish && !isInHundredths(wish.to)
      ? { field: 'rescale.to', message: 'must have at most two digits after the point' }
      : null,
    fine < 0
      ? null
      : {
          field: `scheme.categories[${fine}].weight`,
          message: 'is held: it must have at most two digits after the point',
        },
    twice(`students[${samePerson}].id`, samePerson, 'id'),
    stranger === undefined ? null : { field: stranger, message: 'is a score for an item that is not there' },
  ]
  return faults.find(each => each !== null) ?? null
}

/** Reads a case of grades (docs/grades.md, section 1), or says what is wrong with it first. */
export function readGradeCase(value: unknown): { case: GradeCase } | { fault: GradeFault } {
  const parsed = gradeCase.safeParse(value, { error: inOurWords })
  if (!parsed.success) {
    const { path = [], message = '' } = parsed.error.issues[0] ?? {}
    return { fault: { field: fieldOf(path) || 'the case', message } }
  }
  const fault = faultOf(parsed.data)
  return fault ? { fault } : { case: { ...parsed.data, rescale: parsed.data.rescale ?? null } }
}
export const hundred = fraction(100n)
