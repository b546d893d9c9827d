import { comparableTitle } from '../carry/titles'
import { dateFields } from '../course/dates'
import { asNewest, type CourseDocument } from '../formats/json/documents'
import { courseJsonLists } from '../student-data/student-data'
import type { Gathered } from './gather'
import { asWall } from './saying'

const studentLists = Object.keys(courseJsonLists) as (keyof typeof courseJsonLists)[]
/** A course JSON without what it says of students, and how many records that were: they are for those who keep the roster. */
export function withoutStudents(document: CourseDocument | null): {
  document: CourseDocument | null
  students: number
} {
  if (!document) return { document, students: 0 }
  return {
    document: { ...document, ...Object.fromEntries(studentLists.map(name => [name, []])) },
    students: studentLists.reduce((sum, name) => sum + document[name].length, 0),
  }
}
/** What a course JSON says beside single items, in words: it has a place only where a package is put together with it. */
export function restSaid(document: CourseDocument): string[] {
  const { items, meetings, grading, grace, rubrics, groups, units, furniture } = document
  const isSaid: Readonly<Record<string, boolean>> = {
    'settings of items': items.some(({ settings, rubric, releases, group, kind, state }) =>
      Boolean(settings ?? rubric ?? group ?? kind ?? state ?? releases[0]),
    ),
    meetings: meetings.length > 0,
    'how grades are reckoned': grading !== undefined,
    allowances: grace !== undefined,
    rubrics: rubrics.length > 0,
    groups: groups.length > 0,
    units: units.length > 0,
    furniture: furniture.length > 0,
    'records about students': withoutStudents(document).students > 0,
  }
  return Object.keys(isSaid).filter(part => isSaid[part])
}
/** A course JSON that says nothing of a course but which grade categories it has. */
export const blankDocument = (
  classKey: string,
  categories: CourseDocument['categories'] = [],
): CourseDocument => ({
  ...asNewest({
    format: 'northtide-course',
    version: 1,
    class: classKey,
    meetings: [],
    categories: [],
    items: [],
  } as never),
  categories,
})

/**
 * One course JSON that says all that was gathered: with it and the package a course is put together (`assembleCourse`). What the course JSON
 * among the files says beside (settings, rubrics, meetings …) stands in it as it was, but for items that met nothing.
 */
export function gatheredDocument(
  { items, met }: Gathered,
  { classKey, document }: { classKey: string; document: CourseDocument | null },
): CourseDocument {
  const base = document ?? blankDocument(classKey)
  const entryOf = new Map(
    met.flatMap(({ saying, item }) => {
      const entry =
        saying.kind === 'course-json' && base.items.find(({ identifier }) => identifier === saying.where)
      return entry ? [[item.identifier, entry] as const] : []
    }),
  )
  const categories = [...base.categories]
  const categoryBy = new Map(categories.map(({ title, identifier }) => [comparableTitle(title), identifier]))
  /** The category of a title, which is made where nobody has said more of it. */
  const categoryOf = (title: string): string => {
    const known = categoryBy.get(comparableTitle(title))
    if (known !== undefined) return known
    const identifier = `category:${comparableTitle(title)}`
    categoryBy.set(comparableTitle(title), identifier)
    categories.push({
      identifier,
      title,
      weight: null,
      within: 'points',
      dropLowest: 0,
      dropHighest: 0,
      exempt: false,
      fixed: false,
    })
    return identifier
  }
  const told = items.flatMap(({ item, fields }): CourseDocument['items'] => {
    const own = entryOf.get(item.identifier)
    if (!own && Object.keys(fields).length === 0) return []
    const { points, category, gradingPeriod } = fields
    const dates = dateFields.flatMap(field => {
      const taken = fields[field]
      return taken ? [[field, taken.value === null ? null : asWall(field, taken.value)] as const] : []
    })
    return [
      {
        releases: [],
        ...own,
        identifier: item.identifier,
        ...Object.fromEntries(dates),
        ...(points && { points: points.value }),
        ...(category && { category: category.value === null ? null : categoryOf(category.value) }),
        ...(gradingPeriod && { gradingPeriod: gradingPeriod.value }),
      },
    ]
  })
  return { ...base, class: classKey, categories, items: told }
}
