import type { Knex } from 'knex'
import type { CarriedBase } from '../../core/carry/base'
import { comparableTitle } from '../../core/carry/titles'
import { dateFields } from '../../core/course/dates'
import { counted } from '../../core/dates/words'
import { changesOf, type Parts, type ThingChange } from '../../core/editing/parts'
import { finding, type Finding } from '../../core/formats/findings'
import type { Results as RosterResults } from './import-course'
import { courseChanges, touchedFields, type FieldChange } from '../../core/gather/changes'
import { gather, type Gathered } from '../../core/gather/gather'
import { courseItself, type GatheredItem, type SaidValues, type Saying } from '../../core/gather/saying'
import { parsePoints, pointsText } from '../../core/grading/points'
import { present } from '../../core/present'
import { grades } from '../../core/student-data/kinds/grades'
import type { CourseImport } from '../../shared/api/gathering'
import { loadCategories } from '../courses/around.queries'
import { addBases, loadBases } from '../courses/carried.queries'
import { loadOutline } from '../courses/content.queries'
import { enrolmentIds } from '../courses/staff.queries'
import { insertStudentData } from '../courses/student-data.queries'
import { newId } from '../db/rows'
import { putFields, type FormerFields } from '../editing/edits.queries'
import { keepEdit } from '../editing/edits'
import type { Person } from '../people/people.queries'
import * as queries from './said.queries'

const fileBases = async (db: Knex, courseId: string): Promise<Map<string, CarriedBase>> =>
  new Map((await loadBases(db, courseId)).flatMap(base => (base.file ? [[base.lineage, base]] : [])))
/**
 * The items of a course that is there, with what it says of them itself, as sayings meet them. `unknownCounts`: what no file has brought
 * counts as somebody's own where there is anything.
 */
export async function itemsOfCourse(
  db: Knex,
  courseId: string,
  unknownCounts: boolean,
): Promise<GatheredItem[]> {
  const titles = new Map((await loadCategories(db, courseId)).map(({ lineage, title }) => [lineage, title]))
  const bases = await fileBases(db, courseId)
  const categoryOf = (lineage: string): string | null => titles.get(lineage) ?? null
  return (await loadOutline(db, courseId)).flatMap((node): GatheredItem[] => {
    if (node.type !== 'item' || node.kind === null) return []
    const { lineage, identifier, title, kind, points, category, gradingPeriod } = node
    const values: SaidValues = {
      ...Object.fromEntries(
        dateFields.flatMap(field => (node[field] === null ? [] : [[field, node[field]]])),
      ),
      ...(points !== null && { points: pointsText(points) }),
      ...(category !== null && { category: categoryOf(category) }),
      ...(gradingPeriod !== null && { gradingPeriod }),
    }
    const base = bases.get(lineage)
    const touched = touchedFields(values, base?.parts ?? null, { categoryOf, unknownCounts })
    // By its own key it is named once; the identifier it came with is what files call it by.
    return [{ identifier: lineage, resource: identifier, title, kind, values, touched, by: base?.by ?? {} }]
  })
}

/** What came of files for a course that is there. */
export interface SaidOutcome {
  readonly items: number
  readonly fields: number
  readonly findings: readonly Finding[]
  readonly all: Gathered
}
/**
 * Writes what files say of the items of a course, as one change of the course that can be taken back there: what somebody changed there since
 * stays unless it is chosen otherwise. Whoever calls it has the course for themselves.
 */
export async function writeSaid(
  trx: Knex,
  person: Person,
  courseId: string,
  {
    sayings,
    from,
    unknownCounts,
    pairs = {},
    choices = {},
  }: {
    sayings: readonly Saying[]
    from: string
    unknownCounts: boolean
  } & Partial<Pick<CourseImport, 'pairs' | 'choices'>>,
): Promise<SaidOutcome> {
  const items = await itemsOfCourse(trx, courseId, unknownCounts)
  const all = gather(items, sayings, { pairs, choices, packageFile: courseItself })
  const { changes, kept } = courseChanges(all)
  const before = await queries.loadSaidRows(trx, courseId)
  const keyOf = await categoryKeys(trx, courseId, changes)
  const after = new Map<string, FormerFields>()
  for (const change of changes) {
    const row = after.get(change.identifier) ?? { ...present(before.get(change.identifier)) }
    after.set(change.identifier, { ...row, ...columnOf(change, keyOf) })
  }
  if (after.size > 0) {
    await putFields(trx, courseId, [...after.values()])
    const words = `took ${counted(changes.length, 'date or number', 'dates and numbers')} of ${counted(after.size, 'item')} from ${from}`
    const said = [...after.values()].flatMap(row => saidChange(present(before.get(row.lineage)), row))
    await keepEdit(trx, person, courseId, words, { stood: [], added: null, changes: said }, false)
  }
  await seenBases(trx, courseId, [...changes, ...kept.filter(({ isOwn }) => isOwn)], { after, before, keyOf })
  return {
    items: after.size,
    fields: changes.length,
    all,
    findings: kept.length > 0 ? [finding('own-kept', from, { fields: kept.length })] : [],
  }
}
/** What a file changes of an item, as an edit keeps it. */
function saidChange(before: FormerFields, after: FormerFields): ThingChange[] {
  const partsOf = ({ lineage: _, gradingPeriod: period, points, ...rest }: FormerFields): Parts => ({
    ...rest,
    period,
    points: points === null ? null : parsePoints(points),
  })
  const thing = {
    lineage: before.lineage,
    type: 'item',
    kind: null,
    parent: null,
    fixed: false,
    parts: { title: '', state: 'visible', ...partsOf(before) },
  } as const
  return changesOf(new Map([[before.lineage, thing]]), { [before.lineage]: partsOf(after) })
}
/** Keys of categories by their titles; what a course does not have yet is added to it. */
async function categoryKeys(
  trx: Knex,
  courseId: string,
  changes: readonly FieldChange[],
): Promise<(title: string) => string | null> {
  const keys = new Map(
    (await loadCategories(trx, courseId)).map(({ lineage, title }) => [comparableTitle(title), lineage]),
  )
  const fresh = new Map<string, { lineage: string; title: string }>()
  for (const { field, to } of changes)
    if (field === 'category' && to !== null && !keys.has(comparableTitle(to)))
      fresh.set(comparableTitle(to), fresh.get(comparableTitle(to)) ?? { lineage: newId(), title: to })
  await queries.addCategories(trx, courseId, [...fresh.values()])
  return title => keys.get(comparableTitle(title)) ?? fresh.get(comparableTitle(title))?.lineage ?? null
}
function columnOf(
  { field, to }: FieldChange,
  keyOf: (title: string) => string | null,
): Partial<FormerFields> {
  if (field === 'category') return { category: to === null ? null : keyOf(to) }
  return { [field]: to }
}
/** What the next file is compared with: what this one said, whether it was taken or seen and declined. */
async function seenBases(
  trx: Knex,
  courseId: string,
  seen: readonly FieldChange[],
  {
    after,
    before,
    keyOf,
  }: {
    after: ReadonlyMap<string, FormerFields>
    before: ReadonlyMap<string, FormerFields>
    keyOf: (title: string) => string | null
  },
): Promise<void> {
  const bases = await fileBases(trx, courseId)
  const said = new Map<string, FormerFields>()
  for (const change of seen) {
    const stands = after.get(change.identifier) ?? present(before.get(change.identifier))
    said.set(change.identifier, {
      ...(said.get(change.identifier) ?? stands),
      ...columnOf(change, keyOf),
    })
  }
  await addBases(
    trx,
    courseId,
    [...said].flatMap(([lineage, { opens, due, closes, points, category }]) => {
      const base = bases.get(lineage)
      if (!base) return []
      const parts = {
        ...base.parts,
        dates: `${opens ?? ''} ${due ?? ''} ${closes ?? ''}`,
        points: points === null ? '' : String(parsePoints(points) ?? ''),
        category: category ?? '',
      }
      const own = seen.filter(each => each.identifier === lineage)
      const by = { ...base.by, ...Object.fromEntries(own.map(({ field, kind }) => [field, kind])) }
      return [{ ...base, parts, by }]
    }),
  )
}

/** Puts what students got for line items that met something on their enrolments, in the place of what stood there. Answers how many stay out. */
export async function writeResults(
  trx: Knex,
  courseId: string,
  { rows, itemOf }: RosterResults,
): Promise<{ written: number; unlisted: number }> {
  const enrolments = await enrolmentIds(trx, courseId)
  const entries = rows.flatMap(row => {
    const [enrolment, lineage] = [enrolments.get(row.studentSourcedId), itemOf.get(row.lineItemSourcedId)]
    return enrolment !== undefined && lineage !== undefined
      ? [{ enrolment_id: enrolment, item_lineage: lineage, values: grades.read(row) }]
      : []
  })
  const pairs = entries.map(({ enrolment_id, item_lineage }) => ({
    enrolment: enrolment_id,
    lineage: item_lineage,
  }))
  await queries.dropResultsOf(trx, pairs)
  await insertStudentData(trx, grades, entries)
  return { written: entries.length, unlisted: rows.length - entries.length }
}
