import type { Knex } from 'knex'
import { knownSettings, settingNames, type SettingName } from '../../core/course/settings'
import type { Parts, Thing } from '../../core/editing/parts'
import { parsePoints, pointsText } from '../../core/grading/points'
import { jsonOf, written } from '../db/rows'
import type { ItemRow } from '../db/tables'

const itemColumns = [
  'lineage',
  'kind',
  'parent_lineage',
  'fixed',
  'title',
  'state',
  'opens',
  'due',
  'closes',
  'points',
  'category_lineage',
  'grading_period',
  'settings',
] as const satisfies (keyof ItemRow)[]
const unitColumns = ['lineage', 'parent_lineage', 'fixed', 'title', 'state', 'opens'] as const

/**
 * Units and items of a course with their parts as they stand, deleted ones too; of a section that shows another's content, with the dates
 * that they have there.
 */
export async function loadThings(
  db: Knex,
  { courseId, contentId }: { courseId: string; contentId: string },
  lineages: readonly string[],
): Promise<Map<string, Thing>> {
  const [asked, isOwn] = [[...lineages], courseId === contentId]
  const these = { course_id: contentId }
  const units = await db('units')
    .where(these)
    .whereIn('lineage', asked)
    .select(...unitColumns)
  const items = await db('items')
    .where(these)
    .whereIn('lineage', asked)
    .select(...itemColumns)
  const openings = isOwn
    ? []
    : await db('section_openings').where({ course_id: courseId }).whereIn('lineage', asked)
  const dates = isOwn
    ? []
    : await db('section_dates').where({ course_id: courseId }).whereIn('lineage', asked)
  const openingOf = new Map(openings.map(({ lineage, opens }) => [lineage, opens]))
  const datesOf = new Map(dates.map(row => [row.lineage, row]))
  const things = [
    ...units.map(({ lineage, parent_lineage: parent, fixed, title, state, opens }): Thing => ({
      lineage,
      type: 'unit',
      kind: null,
      parent,
      fixed: Boolean(fixed),
      parts: { title, state, opens: isOwn ? opens : (openingOf.get(lineage) ?? null) },
    })),
    ...items.map(
      ({ lineage, kind, parent_lineage: parent, fixed, title, state, points, settings, ...row }): Thing => {
        const { opens, due, closes } = isOwn
          ? row
          : (datesOf.get(lineage) ?? { opens: null, due: null, closes: null })
        return {
          lineage,
          type: 'item',
          kind,
          parent,
          fixed: Boolean(fixed),
          parts: {
            title,
            state,
            opens,
            due,
            closes,
            points: points === null ? null : parsePoints(points),
            category: row.category_lineage,
            period: row.grading_period,
            ...knownSettings(jsonOf(settings)),
          },
        }
      },
    ),
  ]
  return new Map(things.map(thing => [thing.lineage, thing]))
}

const key = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin'
const wall = 'CHAR(16) CHARACTER SET ascii COLLATE ascii_bin'
/** What is written of a thing: all its parts, and of settings those that change; null takes one away. */
interface Row {
  lineage: string
  parts: Parts
  settings: Partial<Record<SettingName, string | null>>
}
const rowOf = ({ lineage, parts: before }: Thing, after: Parts): Row => ({
  lineage,
  parts: { ...before, ...after },
  settings: Object.fromEntries(
    settingNames.flatMap(name => (name in after ? [[name, after[name] ?? null]] : [])),
  ),
})
const document = (rows: readonly Row[]): string =>
  JSON.stringify(
    rows.map(({ lineage, parts, settings }) => ({
      lineage,
      ...parts,
      points: typeof parts.points === 'number' ? pointsText(parts.points) : null,
      settings: JSON.stringify(settings),
    })),
  )
/** Writes parts of units and items of a course, set by set; of a section that shows another's content, the dates that it has itself. */
export async function putParts(
  trx: Knex,
  { courseId, contentId }: { courseId: string; contentId: string },
  things: ReadonlyMap<string, Thing>,
  changes: readonly { lineage: string; after: Parts }[],
): Promise<void> {
  const of = (type: Thing['type']): Row[] =>
    changes.flatMap(({ lineage, after }) => {
      const thing = things.get(lineage)
      return thing?.type === type ? [rowOf(thing, after)] : []
    })
  const [units, items] = [of('unit'), of('item')]
  if (courseId !== contentId) return putSectionDates(trx, { courseId, contentId }, units, items)
  if (units.length > 0)
    await written(
      trx,
      `UPDATE units t JOIN JSON_TABLE(:rows, '$[*]' COLUMNS (lineage ${key} PATH '$.lineage',
         title VARCHAR(500) CHARACTER SET utf8mb4 PATH '$.title', state VARCHAR(20) PATH '$.state', opens ${wall} PATH '$.opens')) r
         ON r.lineage = t.lineage
       SET t.title = r.title, t.state = r.state, t.opens = r.opens WHERE t.course_id = :courseId`,
      { courseId, rows: document(units) },
    )
  if (items.length > 0)
    await written(
      trx,
      `UPDATE items t JOIN JSON_TABLE(:rows, '$[*]' COLUMNS (lineage ${key} PATH '$.lineage',
         title VARCHAR(500) CHARACTER SET utf8mb4 PATH '$.title', state VARCHAR(20) PATH '$.state',
         opens ${wall} PATH '$.opens', due ${wall} PATH '$.due', closes ${wall} PATH '$.closes',
         points DECIMAL(12,4) PATH '$.points', category ${key} PATH '$.category',
         period VARCHAR(200) CHARACTER SET utf8mb4 PATH '$.period',
         settings TEXT CHARACTER SET utf8mb4 PATH '$.settings')) r ON r.lineage = t.lineage
       SET t.title = r.title, t.state = r.state, t.opens = r.opens, t.due = r.due, t.closes = r.closes, t.points = r.points,
         t.category_lineage = r.category, t.grading_period = r.period,
         t.settings = IF(r.settings = '{}', t.settings, JSON_MERGE_PATCH(t.settings, r.settings))
       WHERE t.course_id = :courseId`,
      { courseId, rows: document(items) },
    )
}
async function putSectionDates(
  trx: Knex,
  { courseId, contentId }: { courseId: string; contentId: string },
  units: readonly Row[],
  items: readonly Row[],
): Promise<void> {
  const place = (lineage: string) => ({ course_id: courseId, content_id: contentId, lineage })
  const openings = units.map(({ lineage, parts }) => ({ ...place(lineage), opens: parts.opens ?? null }))
  const dates = items.map(({ lineage, parts: { opens = null, due = null, closes = null } }) => ({
    ...place(lineage),
    opens,
    due,
    closes,
  }))
  if (openings.length > 0) await trx('section_openings').insert(openings).onConflict().merge()
  if (dates.length > 0) await trx('section_dates').insert(dates).onConflict().merge()
}
