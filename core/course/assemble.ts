import { finding, type Finding } from '../formats/findings'
import type { CourseDocument } from '../formats/json/documents'
import type { Row } from '../formats/oneroster/tables'
import { parsePoints } from '../grading/points'
import { dayOf, minuteOf, wallOf, type WallTime } from '../calendar/day'
import { wallAtInstant, type ZoneRules } from '../calendar/zone'
import { itemFieldsOf, saidItemFields } from './fields'
import { dateFields, noDates, type ItemDates } from './dates'
import { lineageOf } from './lineage'
import type { GradeRules } from '../grading/rules'
import type { Furnishing, Rubric } from './furniture'
import {
  itemsInOrder,
  mapItems,
  mapUnits,
  type CourseContent,
  type GradeCategory,
  type ItemNode,
} from './model'

/** Times of day for line items that give days only: work opens at 08:00 and is due at 23:59 (common practice, no source). */
export const lineItemTimes = { opens: '08:00', due: '23:59' } as const

/**
 * A date of a line item: an instant by the clock of the course's zone, a day at a usual time. An instant without a zone of
 * its own is a wall clock already.
 */
function wallAt(text: string, time: string, zone: ZoneRules): WallTime | null {
  if (text === '') return null
  if (text.length === 10) return wallOf(dayOf(text), minuteOf(time, 0))
  const isWallClock = !/(Z|[+-]\d\d:?\d\d)$/.test(text)
  return isWallClock ? wallOf(dayOf(text), minuteOf(text)) : wallAtInstant(zone, Date.parse(text) / 60_000)
}
const isDayOnly = (text: string): boolean => text.length === 10

export interface CourseParts {
  courseKey: string
  /** What the cartridge gave; null for a course that has only a roster. */
  content: CourseContent | null
  categories: readonly Row<'categories'>[]
  lineItems: readonly Row<'lineItems'>[]
  document: CourseDocument | null
  /** The zone of the course's term. */
  zone: ZoneRules
}
export interface AssembledCourse {
  content: CourseContent
  /** Lineage key of the item that each line item met, by the line item's sourcedId. */
  itemOfLineItem: Map<string, string>
  /** Lineage keys by item identifier. */
  lineages: Map<string, string>
  findings: Finding[]
}

/**
 * Puts a course together from its cartridge, its line items and its course JSON. A line item meets the organisation item
 * with its identifier, else the item of the resource with it, else the only item with exactly its title; what met nothing is
 * a finding. Dates and points of the course JSON win over the line item's, and those over the cartridge's.
 */
export function assembleCourse({
  courseKey,
  content,
  categories,
  lineItems,
  document,
  zone,
}: CourseParts): AssembledCourse {
  const findings: Finding[] = []
  const items = [...itemsInOrder(content?.nodes ?? [])].map(entry => entry.item)
  const byIdentifier = new Map(items.map(item => [item.identifier, item]))
  const byResource = new Map([...items].reverse().map(item => [item.resource, item]))
  const byTitle = new Map<string, ItemNode[]>()
  for (const item of items) byTitle.set(item.title, [...(byTitle.get(item.title) ?? []), item])

  const weights = new Map((document?.categories ?? []).map(entry => [entry.identifier, entry]))
  const used = new Set([...lineItems.map(row => row.categorySourcedId), ...weights.keys()])
  // Column order is the course JSON's, then the roster's.
  const named = new Map([...weights.values()].map(entry => [entry.identifier, entry.title] as const))
  for (const row of categories) if (!named.has(row.sourcedId)) named.set(row.sourcedId, row.title)
  const gradeCategories: GradeCategory[] = [...named]
    .filter(([identifier]) => used.has(identifier))
    .map(([identifier, title]) => ({
      lineage: lineageOf(courseKey, identifier),
      identifier,
      title,
      weight: parsePoints(weights.get(identifier)?.weight ?? ''),
      ...rulesOf(weights.get(identifier)),
    }))
  const categoryKeys = new Map(gradeCategories.map(category => [category.identifier, category.lineage]))

  const changes = new Map<ItemNode, Partial<ItemNode>>()
  const itemOfLineItem = new Map<string, string>()
  let days = 0
  for (const row of lineItems) {
    const titled = byTitle.get(row.title) ?? []
    const item =
      byIdentifier.get(row.sourcedId) ??
      byResource.get(row.sourcedId) ??
      (titled.length === 1 ? titled[0] : undefined)
    if (!item || changes.has(item)) {
      const alike = titled.length > 1 ? titled.length : 'none'
      const met = item ? 'another' : alike
      findings.push(finding('line-item-unmet', `lineItems.csv, ${row.sourcedId}`, { title: row.title, met }))
      continue
    }
    itemOfLineItem.set(row.sourcedId, item.lineage)
    if (isDayOnly(row.assignDate) || isDayOnly(row.dueDate)) days++
    changes.set(item, {
      dates: {
        opens: wallAt(row.assignDate, lineItemTimes.opens, zone),
        due: wallAt(row.dueDate, lineItemTimes.due, zone),
        closes: null,
      },
      points: parsePoints(row.resultValueMax) ?? item.points,
      category: categoryKeys.get(row.categorySourcedId) ?? null,
    })
  }
  if (days > 0)
    findings.push(finding('line-items-days-only', 'lineItems.csv', { count: days, ...lineItemTimes }))

  for (const extra of document?.items ?? []) {
    const item = byIdentifier.get(extra.identifier) ?? byResource.get(extra.identifier)
    if (!item) {
      findings.push(finding('item-unknown', 'course JSON', { item: extra.identifier }))
      continue
    }
    const so = changes.get(item) ?? {}
    const dates: ItemDates = { ...noDates, ...so.dates }
    for (const field of dateFields) {
      const value = extra[field]
      if (value !== undefined) dates[field] = value
    }
    if (extra.category && !categoryKeys.has(extra.category))
      findings.push(
        finding('category-unknown', 'course JSON', { item: extra.identifier, category: extra.category }),
      )
    changes.set(item, {
      ...so,
      dates,
      ...(extra.points && { points: parsePoints(extra.points) }),
      ...(extra.category && { category: categoryKeys.get(extra.category) ?? null }),
      ...(extra.state && { state: extra.state }),
      ...(extra.exam !== undefined && { exam: extra.exam }),
      ...(extra.gradingPeriod && { gradingPeriod: extra.gradingPeriod }),
      ...(extra.kind && { kind: extra.kind }),
      ...(extra.settings && { settings: { ...item.settings, ...extra.settings } }),
      ...assembleGrading(extra),
      ...placeOf(extra),
    })
  }
  const units = new Map((document?.units ?? []).map(unit => [unit.identifier, unit]))
  const changed = mapItems(content?.nodes ?? [], item => ({ ...item, ...changes.get(item) }))
  return {
    content: {
      title: content?.title ?? '',
      madeBy: document?.madeBy ?? 'person',
      nodes: mapUnits(changed, unit => {
        const { fixed = false, opens = null } = units.get(unit.identifier) ?? {}
        return { ...unit, fixed, opens }
      }),
      categories: gradeCategories,
      grading: document?.grading ? gradeRulesOf(document.grading) : null,
      grace: document?.grace ?? null,
      rubrics: document?.rubrics.map(rubric => rubricOf(rubric)) ?? [],
      groups:
        document?.groups.map(({ identifier, title }) => ({
          lineage: keyOf('group', identifier),
          identifier,
          title,
        })) ?? [],
      furniture: furnitureOf(),
    },
    itemOfLineItem,
    lineages: new Map(items.map(item => [item.identifier, item.lineage])),
    findings,
  }

  function keyOf(sort: 'rubric' | 'group' | 'furnishing', identifier: string): string {
    return lineageOf(courseKey, `${sort}:${identifier}`)
  }
  function rubricOf({ identifier, title, criteria }: CourseDocument['rubrics'][number]): Rubric {
    return {
      lineage: keyOf('rubric', identifier),
      identifier,
      title,
      criteria: criteria.map(({ title: name, levels }) => ({
        title: name,
        levels: levels.map(level => ({ title: level.title, points: parsePoints(level.points) ?? 0 })),
      })),
    }
  }
  /** What an item is marked by, whom it is for, and what must be so before it opens; what names nothing is a finding. */
  function assembleGrading(extra: CourseDocument['items'][number]): Partial<ItemNode> {
    const { rubric, group, releases } = extra
    const named = (
      sort: 'rubric' | 'group',
      known: readonly { identifier: string }[],
      name: string,
    ): boolean => {
      const isThere = known.some(each => each.identifier === name)
      if (!isThere)
        findings.push(finding('named-unknown', 'course JSON', { item: extra.identifier, sort, name }))
      return isThere
    }
    return {
      ...(rubric && named('rubric', document?.rubrics ?? [], rubric) && { rubric: keyOf('rubric', rubric) }),
      ...(group && named('group', document?.groups ?? [], group) && { group: keyOf('group', group) }),
      release: releases.flatMap(({ after, needs, least }) => {
        const other = byIdentifier.get(after) ?? byResource.get(after)
        if (!other) findings.push(finding('item-unknown', 'course JSON', { item: after }))
        return other ? [{ after: other.lineage, needs, least: least ?? null }] : []
      }),
      ...saidItemFields(itemFieldsOf(extra)),
    }
  }
  function furnitureOf(): Furnishing[] {
    return (document?.furniture ?? []).map(({ identifier, part, title, item, details }) => {
      const shown = item ? (byIdentifier.get(item) ?? byResource.get(item)) : undefined
      if (item && !shown) findings.push(finding('item-unknown', 'course JSON', { item }))
      return { lineage: keyOf('furnishing', identifier), part, title, item: shown?.lineage ?? null, details }
    })
  }
}

type CategoryEntry = CourseDocument['categories'][number]
function rulesOf(entry: CategoryEntry | undefined): Pick<GradeCategory, 'rules' | 'fixed'> {
  if (!entry) return {}
  const { within, dropLowest, dropHighest, exempt, fixed } = entry
  return { rules: { within, dropLowest, dropHighest, exempt }, fixed }
}
const gradeRulesOf = ({ scale, ...rules }: NonNullable<CourseDocument['grading']>): GradeRules => ({
  ...rules,
  scale: scale.map(({ from, letter }) => ({ from: parsePoints(from) ?? 0, letter })),
})
/** An empty place is of the first kind it can hold, and nobody sees it. */
const placeOf = ({ place, fixed }: CourseDocument['items'][number]): Partial<ItemNode> => ({
  ...(place && { holds: place, kind: place[0] ?? 'page', state: 'hidden' as const }),
  ...(fixed !== undefined && { fixed }),
})
