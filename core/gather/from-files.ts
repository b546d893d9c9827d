import { dateFields, type DateField } from '../course/dates'
import type { CourseContent, ItemNode } from '../course/model'
import { itemsInOrder } from '../course/model'
import { dayOf, minuteOf, wallOf, type WallTime } from '../calendar/day'
import { wallAtInstant, type ZoneRules } from '../calendar/zone'
import type { CourseDocument } from '../formats/json/documents'
import type { Roster } from '../formats/oneroster/read'
import { parsePoints, pointsText } from '../grading/points'
import { isDay, type GatheredItem, type SaidValues, type Saying } from './saying'

const pointsValue = (text: string): string | null => {
  const points = parsePoints(text)
  return points === null ? null : pointsText(points)
}
/** The items of a package, with what it says of them itself. */
export const itemsOfPackage = (content: CourseContent): GatheredItem[] =>
  [...itemsInOrder(content.nodes)].map(({ item }) => ({
    identifier: item.identifier,
    resource: item.resource,
    title: item.title,
    kind: item.kind,
    values: ownValues(item),
  }))
function ownValues({ dates, points }: ItemNode): SaidValues {
  const said = dateFields.flatMap(field => (dates[field] === null ? [] : [[field, dates[field]] as const]))
  return { ...Object.fromEntries(said), ...(points !== null && { points: pointsText(points) }) }
}

/** An instant of a line item by the clock of the course's zone; without a zone of its own it is a wall clock already. Null: none. */
function lineItemWall(text: string, zone: ZoneRules): WallTime | null {
  if (text === '') return null
  const isWallClock = !/(Z|[+-]\d\d:?\d\d)$/.test(text)
  return isWallClock ? wallOf(dayOf(text), minuteOf(text)) : wallAtInstant(zone, Date.parse(text) / 60_000)
}
/** What the line items of one class say. */
export function lineItemSayings(
  file: string,
  { lineItems, categories, academicSessions }: Pick<Roster, 'lineItems' | 'categories' | 'academicSessions'>,
  classKey: string,
  zone: ZoneRules,
): Saying[] {
  const categoryTitles = new Map(categories.map(row => [row.sourcedId, row.title]))
  const periods = new Map(
    academicSessions
      .filter(({ type }) => type === 'gradingPeriod')
      .map(({ sourcedId, title }) => [sourcedId, title]),
  )
  return lineItems
    .filter(row => row.classSourcedId === classKey)
    .map(row => {
      const date = (field: 'opens' | 'due', text: string): SaidValues => {
        const at = isDay(text) ? text : lineItemWall(text, zone)
        return at === null ? {} : { [field]: at }
      }
      const points = pointsValue(row.resultValueMax)
      const category = categoryTitles.get(row.categorySourcedId)
      const period = periods.get(row.gradingPeriodSourcedId)
      return {
        kind: 'line-items',
        file,
        where: row.sourcedId,
        identifier: row.sourcedId,
        title: row.title,
        values: {
          ...date('opens', row.assignDate),
          ...date('due', row.dueDate),
          ...(points !== null && { points }),
          ...(category !== undefined && { category }),
          ...(period !== undefined && { gradingPeriod: period }),
        },
      }
    })
}

/** What a course JSON says of items; a date that is null there is taken away. */
export function documentSayings(file: string, { items, categories }: CourseDocument): Saying[] {
  const titles = new Map(categories.map(({ identifier, title }) => [identifier, title]))
  return items.map(item => {
    const dates = dateFields.flatMap((field): [DateField, string | null][] => {
      const at = item[field]
      return at === undefined ? [] : [[field, at]]
    })
    const points = item.points ? pointsValue(item.points) : null
    const category = titles.get(item.category ?? '')
    return {
      kind: 'course-json',
      file,
      where: item.identifier,
      identifier: item.identifier,
      title: '',
      values: {
        ...Object.fromEntries(dates),
        ...(points !== null && { points }),
        ...(category !== undefined && { category }),
        ...(item.gradingPeriod && { gradingPeriod: item.gradingPeriod }),
      },
    }
  })
}
