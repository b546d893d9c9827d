import { dateFields } from '../course/dates'
import { parsePoints } from '../grading/points'
import type { PartValues } from '../carry/again'
import type { Gathered, Said } from './gather'
import {
  saidFields,
  saysSame,
  asWall,
  isDay,
  type SaidField,
  type SaidValues,
  type SayingKind,
} from './saying'

/** One field of an item of a course that files say otherwise. */
export interface FieldChange {
  readonly identifier: string
  readonly field: SaidField
  readonly from: string | null
  readonly to: string | null
  readonly kind: SayingKind
}
/** What stays: somebody changed it in the course (`isOwn`), or a file that counts more said so. */
export interface KeptField extends FieldChange {
  readonly isOwn: boolean
}
/** What files change in a course, and what they would change where the course's own stays. */
export interface CourseChanges {
  readonly changes: readonly FieldChange[]
  readonly kept: readonly KeptField[]
}
/** What was gathered of the items of a course that is there, against what they are. */
export function courseChanges({ items }: Gathered): CourseChanges {
  const [changes, kept]: [FieldChange[], KeptField[]] = [[], []]
  for (const { item, fields } of items)
    for (const field of saidFields) {
      const taken = fields[field]
      const from = item.values[field] ?? null
      if (!taken) continue
      const change = ({ value, kind }: Said): FieldChange => ({
        kind,
        identifier: item.identifier,
        field,
        from,
        to: value !== null && isDateField(field) && isDay(value) ? asWall(field, value) : value,
      })
      if (taken.kind !== 'package') {
        if (!saysSame(taken.value, from)) changes.push(change(taken))
        continue
      }
      const [other] = taken.others
      if (other) kept.push({ ...change(other), isOwn: item.touched?.includes(field) ?? false })
    }
  return { changes, kept }
}
const isDateField = (field: SaidField): field is (typeof dateFields)[number] =>
  dateFields.some(each => each === field)

/**
 * Fields of an item that are not as a file brought them (docs/places.md, section 3: T and B); what no file brought is as it came only where
 * the course has nothing there. `categoryOf`: a category's title by its key.
 */
export function touchedFields(
  values: SaidValues,
  base: PartValues | null,
  { categoryOf, unknownCounts }: { categoryOf: (lineage: string) => string | null; unknownCounts: boolean },
): SaidField[] {
  if (!base) return unknownCounts ? saidFields.filter(field => (values[field] ?? null) !== null) : []
  const dates = (base.dates ?? '').split(' ')
  const points = parseInt(base.points ?? '', 10)
  const was: Partial<Record<SaidField, string | null>> = {
    ...Object.fromEntries(dateFields.map((field, at) => [field, dates[at] || null])),
    points: Number.isNaN(points) ? null : String(points),
    category: base.category ? categoryOf(base.category) : null,
  }
  const here = (field: SaidField): string | null => {
    const value = values[field] ?? null
    return field === 'points' && value !== null ? String(parsePoints(value)) : value
  }
  return saidFields.filter(field => field in was && here(field) !== (was[field] ?? null))
}
