import { finding, type Finding } from '../formats/findings'
import type { CourseDocument } from '../formats/json/documents'
import { parsePoints } from '../grading/points'
import { itemFieldsOf, saidItemFields } from './fields'
import { dateFields, type ItemDates } from './dates'
import { lineageOf } from './lineage'
import type { GradeRules } from '../grading/rules'
import type { Rubric } from './furniture'
import {
  itemsInOrder,
  mapItems,
  mapUnits,
  type CourseContent,
  type GradeCategory,
  type ItemNode,
} from './model'

export interface CourseParts {
  courseKey: string
  /** What the cartridge gave; null for a course that has only a roster. */
  content: CourseContent | null
  document: CourseDocument | null
}
export interface AssembledCourse {
  content: CourseContent
  /** Lineage keys by item identifier. */
  lineages: Map<string, string>
  findings: Finding[]
}

/** Items of a course's content by what files name them by. */
interface KnownItems {
  readonly all: readonly ItemNode[]
  /** By the identifier of its organisation item, else of its resource. */
  readonly named: (identifier: string) => ItemNode | undefined
  readonly titled: (title: string) => readonly ItemNode[]
}
function knownItems(content: CourseContent | null): KnownItems {
  const all = [...itemsInOrder(content?.nodes ?? [])].map(entry => entry.item)
  const byIdentifier = new Map(all.map(item => [item.identifier, item]))
  const byResource = new Map([...all].reverse().map(item => [item.resource, item]))
  const byTitle = new Map<string, ItemNode[]>()
  for (const item of all) byTitle.set(item.title, [...(byTitle.get(item.title) ?? []), item])
  return {
    all,
    named: identifier => byIdentifier.get(identifier) ?? byResource.get(identifier),
    titled: title => byTitle.get(title) ?? [],
  }
}
/** Changes of items, as one file after another says them. */
type Changes = Map<ItemNode, Partial<ItemNode>>

/**
 * Puts a course together from its cartridge and a course JSON, whose dates and points win. What other files say has been gathered into such a
 * JSON before (`core/gather`).
 */
export function assembleCourse(parts: CourseParts): AssembledCourse {
  const { content, document } = parts
  const findings: Finding[] = []
  const items = knownItems(content)
  const categories = gradeCategories(parts)
  const changes: Changes = new Map()
  if (document) takeDocument(parts.courseKey, document, { items, categories, changes, findings })
  const units = new Map((document?.units ?? []).map(unit => [unit.identifier, unit]))
  const changed = mapItems(content?.nodes ?? [], item => ({ ...item, ...changes.get(item) }))
  return {
    content: {
      title: content?.title ?? '',
      madeBy: document?.madeBy ?? 'person',
      nodes: mapUnits(changed, unit => {
        const said = units.get(unit.identifier)
        return said ? { ...unit, fixed: said.fixed, opens: said.opens ?? null } : unit
      }),
      categories,
      grading: document?.grading ? gradeRulesOf(document.grading) : null,
      grace: document?.grace ?? null,
      ...aroundItems(parts, items, findings),
    },
    lineages: new Map(items.all.map(item => [item.identifier, item.lineage])),
    findings,
  }
}

/** Categories in column order. */
const gradeCategories = ({ courseKey, document }: CourseParts): GradeCategory[] =>
  (document?.categories ?? []).map(entry => ({
    lineage: lineageOf(courseKey, entry.identifier),
    identifier: entry.identifier,
    title: entry.title,
    weight: parsePoints(entry.weight ?? ''),
    ...rulesOf(entry),
  }))

interface Assembling {
  readonly items: KnownItems
  readonly categories: readonly GradeCategory[]
  readonly changes: Changes
  readonly findings: Finding[]
}
const categoryKeys = (categories: readonly GradeCategory[]): Map<string, string> =>
  new Map(categories.map(({ identifier, lineage }) => [identifier, lineage]))

/** What the course JSON says of items, over what the cartridge said. */
function takeDocument(
  courseKey: string,
  document: CourseDocument,
  { items, categories, changes, findings }: Assembling,
): void {
  const keys = categoryKeys(categories)
  for (const extra of document.items) {
    const item = items.named(extra.identifier)
    if (!item) {
      findings.push(finding('item-unknown', 'course JSON', { item: extra.identifier }))
      continue
    }
    const so = changes.get(item) ?? {}
    const dates: ItemDates = { ...item.dates, ...so.dates }
    for (const field of dateFields) {
      const value = extra[field]
      if (value !== undefined) dates[field] = value
    }
    if (extra.category && !keys.has(extra.category))
      findings.push(
        finding('category-unknown', 'course JSON', { item: extra.identifier, category: extra.category }),
      )
    changes.set(item, {
      ...so,
      dates,
      ...(extra.points && { points: parsePoints(extra.points) }),
      ...(extra.category && { category: keys.get(extra.category) ?? null }),
      ...(extra.state && { state: extra.state }),
      ...(extra.exam !== undefined && { exam: extra.exam }),
      ...(extra.gradingPeriod && { gradingPeriod: extra.gradingPeriod }),
      ...(extra.kind && { kind: extra.kind }),
      ...(extra.settings && { settings: { ...item.settings, ...extra.settings } }),
      ...gradingOf(courseKey, document, extra, { items, findings }),
      ...placeOf(extra),
    })
  }
}
type ItemEntry = CourseDocument['items'][number]
/** What an item is marked by, whom it is for, and what must be so before it opens; what names nothing is a finding. */
function gradingOf(
  courseKey: string,
  document: CourseDocument,
  extra: ItemEntry,
  { items, findings }: Pick<Assembling, 'items' | 'findings'>,
): Partial<ItemNode> {
  const { rubric, group, releases } = extra
  const isNamed = (sort: 'rubric' | 'group', name: string): boolean => {
    const known = sort === 'rubric' ? document.rubrics : document.groups
    const isThere = known.some(each => each.identifier === name)
    if (!isThere)
      findings.push(finding('named-unknown', 'course JSON', { item: extra.identifier, sort, name }))
    return isThere
  }
  return {
    ...(rubric && isNamed('rubric', rubric) && { rubric: keyOf(courseKey, 'rubric', rubric) }),
    ...(group && isNamed('group', group) && { group: keyOf(courseKey, 'group', group) }),
    release: releases.flatMap(({ after, needs, least }) => {
      const other = items.named(after)
      if (!other) findings.push(finding('item-unknown', 'course JSON', { item: after }))
      return other ? [{ after: other.lineage, needs, least: least ?? null }] : []
    }),
    ...saidItemFields(itemFieldsOf(extra)),
  }
}

const keyOf = (courseKey: string, sort: 'rubric' | 'group' | 'furnishing', identifier: string): string =>
  lineageOf(courseKey, `${sort}:${identifier}`)
/** What stands around the items: rubrics, groups and furniture of the course JSON. */
function aroundItems(
  { courseKey, document }: CourseParts,
  items: KnownItems,
  findings: Finding[],
): Pick<CourseContent, 'rubrics' | 'groups' | 'furniture'> {
  const rubricOf = ({ identifier, title, criteria }: CourseDocument['rubrics'][number]): Rubric => ({
    lineage: keyOf(courseKey, 'rubric', identifier),
    identifier,
    title,
    criteria: criteria.map(({ title: name, levels }) => ({
      title: name,
      levels: levels.map(level => ({ title: level.title, points: parsePoints(level.points) ?? 0 })),
    })),
  })
  const furnishingOf = ({ identifier, part, title, item, details }: CourseDocument['furniture'][number]) => {
    const shown = item ? items.named(item) : undefined
    if (item && !shown) findings.push(finding('item-unknown', 'course JSON', { item }))
    const lineage = keyOf(courseKey, 'furnishing', identifier)
    return { lineage, part, title, item: shown?.lineage ?? null, details }
  }
  return {
    rubrics: document?.rubrics.map(rubricOf) ?? [],
    groups:
      document?.groups.map(({ identifier, title }) => ({
        lineage: keyOf(courseKey, 'group', identifier),
        identifier,
        title,
      })) ?? [],
    furniture: document?.furniture.map(furnishingOf) ?? [],
  }
}

type CategoryEntry = CourseDocument['categories'][number]
const rulesOf = ({
  within,
  dropLowest,
  dropHighest,
  exempt,
  fixed,
}: CategoryEntry): Pick<GradeCategory, 'rules' | 'fixed'> => ({
  rules: { within, dropLowest, dropHighest, exempt },
  fixed,
})
const gradeRulesOf = ({ scale, ...rules }: NonNullable<CourseDocument['grading']>): GradeRules => ({
  ...rules,
  scale: scale.map(({ from, letter }) => ({ from: parsePoints(from) ?? 0, letter })),
})
/** An empty place is of the first kind it can hold, and nobody sees it. */
const placeOf = ({ place, fixed }: CourseDocument['items'][number]): Partial<ItemNode> => ({
  ...(place && { holds: place, kind: place[0] ?? 'page', state: 'hidden' as const }),
  ...(fixed !== undefined && { fixed }),
})
