import type { Knex } from 'knex'
import type { Furnishing, Rubric, WorkGroup } from '../../core/course/furniture'
import type { CourseContent } from '../../core/course/model'
import { parsePoints, pointsText } from '../../core/grading/points'
import type { Grace } from '../../core/grading/grace'
import { plainCategory, plainRules, type CategoryLine, type GradeRules } from '../../core/grading/rules'
import { inBatches, json, jsonOf } from '../db/rows'
import { contentOf } from './sections.queries'

/** What a course holds around its units and items: how it grades, and its furniture. All of it is copied set by set. */
export const aroundColumns = {
  grade_categories:
    'lineage, title, weight, position, identifier, within, drop_lowest, drop_highest, exempt, fixed',
  grade_rules: 'reckoned_by, ungraded, decimals, scale',
  grace_rules: 'allowances, days, adds_up',
  rubrics: 'lineage, identifier, position, title, criteria',
  work_groups: 'lineage, identifier, position, title',
  furnishings: 'lineage, part, position, title, item_lineage, details',
} as const
export const aroundTables = Object.keys(aroundColumns) as (keyof typeof aroundColumns)[]

/** Grade categories of a course in column order. */
export async function loadCategories(db: Knex, courseId: string): Promise<CategoryLine[]> {
  const rows = await db('grade_categories')
    .where({ course_id: await contentOf(db, courseId) })
    .orderBy('position')
  return rows.map(row => ({
    lineage: row.lineage,
    title: row.title,
    weight: row.weight === null ? null : parsePoints(row.weight),
    identifier: row.identifier,
    within: row.within,
    dropLowest: row.drop_lowest,
    dropHighest: row.drop_highest,
    exempt: row.exempt,
    fixed: row.fixed,
  }))
}
/** How a course reckons its grades; null where nobody has said. */
export async function loadGradeRules(db: Knex, courseId: string): Promise<GradeRules | null> {
  const row = await db('grade_rules')
    .where({ course_id: await contentOf(db, courseId) })
    .first()
  return row
    ? { by: row.reckoned_by, ungraded: row.ungraded, decimals: row.decimals, scale: jsonOf(row.scale) }
    : null
}
/** How often students of a course may hand in later without asking; null where nobody has said. */
export async function loadGrace(db: Knex, courseId: string): Promise<Grace | null> {
  const row = await db('grace_rules')
    .where({ course_id: await contentOf(db, courseId) })
    .first()
  return row ? { count: row.allowances, days: row.days, addsUp: row.adds_up } : null
}
export async function putGrace(db: Knex, courseId: string, { count, days, addsUp }: Grace): Promise<void> {
  const row = { course_id: courseId, allowances: count, days, adds_up: addsUp }
  await db('grace_rules').insert(row).onConflict('course_id').merge()
}
export async function loadRubrics(db: Knex, courseId: string): Promise<Rubric[]> {
  const rows = await db('rubrics')
    .where({ course_id: await contentOf(db, courseId) })
    .orderBy('position')
  return rows.map(({ lineage, identifier, title, criteria }) => ({
    lineage,
    identifier: identifier ?? lineage,
    title,
    criteria: jsonOf(criteria),
  }))
}
export async function loadGroups(db: Knex, courseId: string): Promise<WorkGroup[]> {
  const rows = await db('work_groups')
    .where({ course_id: await contentOf(db, courseId) })
    .orderBy('position')
  return rows.map(({ lineage, identifier, title }) => ({ lineage, identifier: identifier ?? lineage, title }))
}
export async function loadFurniture(db: Knex, courseId: string): Promise<Furnishing[]> {
  const rows = await db('furnishings')
    .where({ course_id: await contentOf(db, courseId) })
    .orderBy('position')
  return rows.map(({ lineage, part, title, item_lineage: item, details }) => ({
    lineage,
    part,
    title,
    item,
    details: jsonOf(details),
  }))
}

/** Writes what stands around the units of a course that has none of it yet. */
export async function insertAround(db: Knex, courseId: string, content: CourseContent): Promise<void> {
  const course_id = courseId
  const { categories, grading, grace, rubrics = [], groups = [], furniture = [] } = content
  const categoryRows = categories.map(({ lineage, identifier, title, weight, rules, fixed }, position) => {
    const { within, dropLowest, dropHighest, exempt } = rules ?? plainCategory
    return {
      course_id,
      lineage,
      identifier,
      title,
      weight: weight === null ? null : pointsText(weight),
      position,
      within,
      drop_lowest: dropLowest,
      drop_highest: dropHighest,
      exempt,
      fixed: fixed ?? false,
    }
  })
  for (const batch of inBatches(categoryRows)) await db('grade_categories').insert(batch)
  if (grading) await db('grade_rules').insert({ course_id, ...gradeRulesColumns(grading) })
  if (grace) await putGrace(db, course_id, grace)
  const rubricRows = rubrics.map(({ criteria, ...rubric }, position) => ({
    course_id,
    ...rubric,
    position,
    criteria: json(criteria),
  }))
  for (const batch of inBatches(rubricRows)) await db('rubrics').insert(batch)
  const groupRows = groups.map((group, position) => ({ course_id, ...group, position }))
  for (const batch of inBatches(groupRows)) await db('work_groups').insert(batch)
  const furnitureRows = furniture.map(({ item, details, ...furnishing }, position) => ({
    course_id,
    ...furnishing,
    position,
    item_lineage: item,
    details: json(details),
  }))
  for (const batch of inBatches(furnitureRows)) await db('furnishings').insert(batch)
}
export const gradeRulesColumns = (rules: GradeRules = plainRules) => ({
  reckoned_by: rules.by,
  ungraded: rules.ungraded,
  decimals: rules.decimals,
  scale: json(rules.scale),
})
