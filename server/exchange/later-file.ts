import type { Knex } from 'knex'
import { lineageOf } from '../../core/course/lineage'
import { mapItems, mapUnits, type CourseNode } from '../../core/course/model'
import type { CourseDocument } from '../../core/formats/json/documents'
import { pointsText } from '../../core/grading/points'
import { loadCategories } from '../courses/around.queries'
import { loadAsStands } from '../courses/content.queries'

/**
 * What a later file of a course says nothing of stands in it as it does in the course: where a file is silent it differs in nothing, and
 * proposes nothing.
 */
export async function withWhatStands(
  db: Knex,
  courseId: string,
  nodes: readonly CourseNode[],
): Promise<CourseNode[]> {
  const { units, items } = await loadAsStands(db, courseId)
  const changed = mapItems(nodes, item => {
    const stands = items.get(item.lineage)
    if (!stands) return item
    const { points, settings, dates } = item
    const said = Object.fromEntries(Object.entries(dates).filter(([, at]) => at !== null))
    return {
      ...item,
      ...stands,
      points: points ?? stands.points ?? null,
      settings: { ...stands.settings, ...settings },
      dates: { ...dates, ...stands.dates, ...said },
    }
  })
  return mapUnits(changed, unit => ({ ...unit, ...units.get(unit.lineage) }))
}
/** The grade categories of a course, as its files called them: those that came with one. */
export async function categoriesThere(
  db: Knex,
  { id, courseKey }: { id: string; courseKey: string },
): Promise<CourseDocument['categories']> {
  return (await loadCategories(db, id)).flatMap(({ lineage, identifier, weight, ...category }) =>
    identifier !== null && lineageOf(courseKey, identifier) === lineage
      ? [{ ...category, identifier, weight: weight === null ? null : pointsText(weight) }]
      : [],
  )
}
