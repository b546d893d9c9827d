import type { Knex } from 'knex'
import { itemFieldColumns, itemFieldsOfRow, noItemFields, rowOfItemFields } from '../../core/course/fields'
import { datesOf, noDates, type ItemDates } from '../../core/course/dates'
import type {
  Body,
  CourseContent,
  CourseNode,
  ItemKind,
  ItemNode,
  ItemState,
  UnitNode,
} from '../../core/course/model'
import { inCourseOrder, type OutlineNode } from '../../core/course/outline'
import { parsePoints, pointsText } from '../../core/grading/points'
import { inBatches, json, jsonOf, selectRows, written } from '../db/rows'
import type { ItemRow, UnitRow } from '../db/tables'
import { aroundColumns, aroundTables, insertAround } from './around.queries'
import { storeStreams } from './bodies.queries'
import { contentOf } from './sections.queries'

/** The number in a decimal column; null where there is none. */
const numberOf = (decimal: string | null): number | null => (decimal === null ? null : parsePoints(decimal))

const unitsOf = (db: Knex, courseId: string, withDeleted: boolean): Promise<UnitRow[]> =>
  db('units')
    .where({ course_id: courseId })
    .modify(query => (withDeleted ? query : query.whereNot({ state: 'deleted' })))
type OutlineItem = Omit<ItemRow, 'settings'> & {
  settings_hash: string | null
  size: number | null
}
const itemsOf = (
  db: Knex,
  courseId: string,
  withheld: ReadonlySet<ItemKind>,
  withDeleted: boolean,
): Promise<OutlineItem[]> =>
  db('items')
    .leftJoin('bodies', 'bodies.hash', 'items.body_hash')
    .where({ course_id: courseId })
    .modify(query => (withDeleted ? query : query.whereNot({ state: 'deleted' })))
    .whereNotIn('kind', [...withheld])
    .select<OutlineItem[]>(
      ...outlineColumns.map(column => `items.${column}`),
      'bodies.size',
      db.raw(`IF(items.settings = '{}', NULL, SHA2(items.settings, 256)) AS settings_hash`),
    )
const outlineColumns = [
  'course_id',
  'lineage',
  'parent_lineage',
  'position',
  'title',
  'kind',
  'state',
  'exam',
  'points',
  'category_lineage',
  'rubric_lineage',
  'group_lineage',
  'releases',
  ...itemFieldColumns,
  'identifier',
  'body_hash',
  'media_type',
  'holds',
  'fixed',
  'made_by',
  'opens',
  'due',
  'closes',
  'grading_period',
] as const satisfies (keyof ItemRow)[]
/** The dates that a section's units and items have, by lineage. */
async function sectionDates(db: Knex, sectionId: string): Promise<Map<string, ItemDates>> {
  const rows = await db('section_dates').where({ course_id: sectionId })
  const openings = await db('section_openings').where({ course_id: sectionId })
  return new Map([
    ...openings.map(({ lineage, opens }) => [lineage, { ...noDates, opens }] as const),
    ...rows.map(row => [row.lineage, datesOf(row)] as const),
  ])
}
/** Items without those nested in something that is not there: what is nested in what stays away stays away with it. */
function reachable(units: readonly UnitRow[], items: readonly OutlineItem[]): OutlineItem[] {
  const here = new Set([...units, ...items].map(row => row.lineage))
  let kept = [...items]
  for (let before = -1; before !== kept.length;) {
    before = kept.length
    kept = kept.filter(row => row.parent_lineage === null || here.has(row.parent_lineage))
    here.clear()
    for (const row of [...units, ...kept]) here.add(row.lineage)
  }
  return kept
}

const unitNode = (row: UnitRow, opens: ItemDates['opens']) => ({
  lineage: row.lineage,
  parent: row.parent_lineage,
  position: row.position,
  type: 'unit' as const,
  title: row.title,
  kind: null,
  state: row.state,
  exam: false,
  points: null,
  category: null,
  rubric: null,
  group: null,
  release: [],
  ...noItemFields,
  identifier: row.identifier,
  body: null,
  size: 0,
  isHtml: false,
  settings: null,
  holds: null,
  fixed: row.fixed,
  madeBy: row.made_by,
  gradingPeriod: null,
  ...noDates,
  opens,
})
/** What an item is beside its name, its place, its text, its settings and its dates. */
const standingOf = (row: Omit<ItemRow, 'settings'>) => ({
  kind: row.kind,
  state: row.state,
  exam: row.exam,
  points: numberOf(row.points),
  category: row.category_lineage,
  rubric: row.rubric_lineage,
  group: row.group_lineage,
  release: jsonOf(row.releases),
  holds: row.holds && jsonOf(row.holds),
  fixed: row.fixed,
  gradingPeriod: row.grading_period,
  ...itemFieldsOfRow(row),
})
const itemNode = (row: OutlineItem, dates: ItemDates) => ({
  lineage: row.lineage,
  parent: row.parent_lineage,
  position: row.position,
  type: 'item' as const,
  title: row.title,
  ...standingOf(row),
  identifier: row.identifier,
  body: row.body_hash,
  size: row.size ?? 0,
  isHtml: row.media_type === 'text/html' && (row.size ?? 0) > 0,
  settings: row.settings_hash,
  madeBy: row.made_by,
  ...dates,
})
/**
 * Units and items of a course in its own order, with dates. Deleted things are not among them, nor are kinds that somebody
 * does not get (`withheld`). `withDeleted`: they are, for whoever may ask for them again.
 */
export async function loadOutline(
  db: Knex,
  courseId: string,
  withheld: ReadonlySet<ItemKind> = new Set(),
  withDeleted = false,
): Promise<OutlineNode[]> {
  const content = await contentOf(db, courseId)
  const units = await unitsOf(db, content, withDeleted)
  const items = await itemsOf(db, content, withheld, withDeleted)
  const own = content === courseId ? null : await sectionDates(db, courseId)
  const kept = withheld.size > 0 ? reachable(units, items) : items
  return inCourseOrder([
    ...units.map(row => unitNode(row, own ? (own.get(row.lineage)?.opens ?? null) : row.opens)),
    ...kept.map(row => itemNode(row, own ? (own.get(row.lineage) ?? noDates) : datesOf(row))),
  ])
}

/** A unit or an item as it stands: what is counted of it after a run, and what may have to be looked through. */
export interface StandingNode {
  readonly lineage: string
  readonly title: string
  readonly state: ItemState
  readonly body: string | null
  /** How many dates it has. */
  readonly dates: number
  readonly hasSettings: boolean
}
/** Units and items of a course that shows its own content, deleted ones too, in no order. */
export async function loadStanding(db: Knex, courseId: string): Promise<StandingNode[]> {
  type Row = Pick<ItemRow, 'lineage' | 'title' | 'state' | 'body_hash'> & { dates: number; settings: number }
  const rows = await selectRows<Row>(
    db,
    `SELECT lineage, title, state, NULL AS body_hash, opens IS NOT NULL AS dates, 0 AS settings
     FROM units WHERE course_id = :courseId
     UNION ALL
     SELECT lineage, title, state, body_hash, (opens IS NOT NULL) + (due IS NOT NULL) + (closes IS NOT NULL),
       settings <> '{}'
     FROM items WHERE course_id = :courseId`,
    { courseId },
  )
  return rows.map(({ lineage, title, state, body_hash: body, dates, settings }) => ({
    lineage,
    title,
    state,
    body,
    dates: Number(dates),
    hasSettings: Number(settings) === 1,
  }))
}

/** Lineages of what was deleted in a course. */
export async function deletedIn(db: Knex, courseId: string): Promise<string[]> {
  const where = { course_id: await contentOf(db, courseId), state: 'deleted' } as const
  return [
    ...(await db('units').where(where).pluck('lineage')),
    ...(await db('items').where(where).pluck('lineage')),
  ]
}

/** An item whole, but for its dates and its place. */
export interface ItemWhole {
  lineage: string
  title: string
  kind: ItemKind
  state: ItemState
  exam: boolean
  points: number | null
  category: string | null
  gradingPeriod: string | null
  bodyHash: string | null
  /** Bytes of the body. */
  size: number
  mediaType: string | null
  settings: Record<string, unknown>
}
export async function loadItem(db: Knex, courseId: string, lineage: string): Promise<ItemWhole | null> {
  const [row] = await selectRows<ItemRow & { category_title: string | null; size: number | null }>(
    db,
    `SELECT items.*, grade_categories.title AS category_title, bodies.size
     FROM items
     LEFT JOIN bodies ON bodies.hash = items.body_hash
     LEFT JOIN grade_categories
       ON grade_categories.course_id = items.course_id AND grade_categories.lineage = items.category_lineage
     WHERE items.course_id = :content AND items.lineage = :lineage AND items.state <> 'deleted'`,
    { content: await contentOf(db, courseId), lineage },
  )
  if (!row) return null
  return {
    lineage: row.lineage,
    title: row.title,
    kind: row.kind,
    state: row.state,
    exam: row.exam,
    points: numberOf(row.points),
    category: row.category_title,
    gradingPeriod: row.grading_period,
    bodyHash: row.body_hash,
    size: row.size ?? 0,
    mediaType: row.media_type,
    settings: jsonOf(row.settings),
  }
}

/** What a file that says nothing of them leaves of units and items as it is: all but their names, their places and their texts. */
export interface Standing {
  readonly units: ReadonlyMap<string, Pick<UnitNode, 'opens' | 'fixed'>>
  readonly items: ReadonlyMap<string, Omit<Partial<ItemNode>, 'title' | 'body' | 'children'>>
}
export async function loadAsStands(db: Knex, courseId: string): Promise<Standing> {
  const where = { course_id: await contentOf(db, courseId) }
  const units = await db('units').where(where).whereNot({ state: 'deleted' })
  const items = await db('items').where(where).whereNot({ state: 'deleted' })
  return {
    units: new Map(units.map(({ lineage, opens, fixed }) => [lineage, { opens, fixed }])),
    items: new Map(
      items.map(row => [
        row.lineage,
        { ...standingOf(row), settings: jsonOf(row.settings), dates: datesOf(row) },
      ]),
    ),
  }
}
/** Which of some items are in a course, and not deleted. */
export const itemsThere = async (
  db: Knex,
  courseId: string,
  lineages: readonly string[],
): Promise<Pick<ItemRow, 'lineage' | 'kind'>[]> =>
  db('items')
    .where({ course_id: await contentOf(db, courseId) })
    .whereNot({ state: 'deleted' })
    .whereIn('lineage', lineages)
    .select('lineage', 'kind')
/** Hashes of the settings of some items of a course, as its outline tells them. */
export async function settingsHashes(
  db: Knex,
  courseId: string,
  lineages: readonly string[],
): Promise<Map<string, string>> {
  const rows: { lineage: string; hash: string }[] = await db('items')
    .where({ course_id: await contentOf(db, courseId) })
    .whereIn('lineage', lineages)
    .select('lineage', db.raw('SHA2(settings, 256) AS hash'))
  return new Map(rows.map(row => [row.lineage, row.hash]))
}
/** The settings of all items of a course, by lineage. */
export async function loadSettings(
  db: Knex,
  courseId: string,
): Promise<Map<string, Record<string, unknown>>> {
  const rows = await db('items')
    .where({ course_id: await contentOf(db, courseId) })
    .whereRaw(`settings <> '{}'`)
    .select('lineage', 'settings')
  return new Map(rows.map(row => [row.lineage, jsonOf(row.settings)]))
}
/** Marks an item as the institution’s, or takes the mark off: of a section, the content’s. */
export async function markFixed(db: Knex, courseId: string, lineage: string, fixed: boolean): Promise<void> {
  await db('items')
    .where({ course_id: await contentOf(db, courseId), lineage })
    .update({ fixed })
}
export async function holdsContent(db: Knex, courseId: string): Promise<boolean> {
  const item = await db('items').where({ course_id: courseId }).first('lineage')
  const unit = await db('units').where({ course_id: courseId }).first('lineage')
  return item !== undefined || unit !== undefined
}

interface ContentRows {
  units: UnitRow[]
  items: ItemRow[]
}
/** Rows of a tree, each with its parent and its place there. */
function rowsOfTree(
  courseId: string,
  { nodes: tree, madeBy: made_by = 'person' }: CourseContent,
  hashes: Map<string, string>,
): ContentRows {
  const rows: ContentRows = { units: [], items: [] }
  const walk = (nodes: readonly CourseNode[], parent: string | null): void =>
    nodes.forEach((node, position) => {
      const place = {
        course_id: courseId,
        lineage: node.lineage,
        parent_lineage: parent,
        position,
        title: node.title,
        identifier: keptIdentifier(node.identifier),
        fixed: node.fixed ?? false,
        made_by,
      }
      if (node.type === 'unit') rows.units.push({ ...place, state: 'visible', opens: node.opens ?? null })
      else
        rows.items.push({
          ...place,
          ...node.dates,
          kind: node.kind,
          state: node.state,
          exam: node.exam,
          points: decimalOf(node.points),
          category_lineage: node.category,
          rubric_lineage: node.rubric ?? null,
          group_lineage: node.group ?? null,
          releases: json(node.release ?? []),
          ...rowOfItemFields(node),
          holds: node.holds ? json(node.holds) : null,
          body_hash: hashes.get(node.lineage) ?? null,
          media_type: node.body?.mediaType ?? null,
          settings: json({ ...node.settings }),
          grading_period: node.gradingPeriod ?? null,
        })
      walk(node.children, node.lineage)
    })
  walk(tree, null)
  return rows
}
const decimalOf = (points: number | null): string | null => (points === null ? null : pointsText(points))
/** An identifier that is longer than a key can be says nothing of which thing it is. */
const keptIdentifier = (identifier: string): string | null => (identifier.length > 190 ? null : identifier)
function bodiesIn(tree: readonly CourseNode[], bodies = new Map<string, Body>()): Map<string, Body> {
  for (const node of tree) {
    if (node.type === 'item' && node.body) bodies.set(node.lineage, node.body)
    bodiesIn(node.children, bodies)
  }
  return bodies
}
/** Writes the content of a course that has none yet: bodies first, then units, items and grade categories. */
export async function insertContent(db: Knex, courseId: string, content: CourseContent): Promise<void> {
  const hashes = await storeStreams(db, bodiesIn(content.nodes))
  const { units, items } = rowsOfTree(courseId, content, hashes)
  for (const batch of inBatches(units)) await db('units').insert(batch)
  for (const batch of inBatches(items)) await db('items').insert(batch)
  await insertAround(db, courseId, content)
}

const contentColumns = {
  ...aroundColumns,
  units: 'lineage, parent_lineage, position, title, state, opens, identifier, fixed, made_by',
  items: `lineage, parent_lineage, position, kind, title, state, exam, points, category_lineage, opens, due, closes,
    body_hash, media_type, settings, identifier, rubric_lineage, group_lineage, releases, ${itemFieldColumns.join(', ')}, holds, fixed,
    made_by, grading_period`,
  carried_bases: 'bases',
} as const
/** Copies everything that a course holds as content into another that holds none: rows of metadata, set by set; bodies stay shared. */
export async function copyWhole(
  trx: Knex,
  from: string,
  to: string,
): Promise<{ items: number; units: number }> {
  const copied = await copyContent(trx, from, to)
  await copyMeetings(trx, from, to)
  return copied
}
/** The same without when the course meets. */
export async function copyContent(
  trx: Knex,
  from: string,
  to: string,
): Promise<{ items: number; units: number }> {
  const content = await contentOf(trx, from)
  const copy = (table: keyof typeof contentColumns): Promise<number> =>
    written(
      trx,
      `INSERT INTO ${table} (course_id, ${contentColumns[table]})
       SELECT :to, ${contentColumns[table]} FROM ${table} WHERE course_id = :content`,
      { to, content },
    )
  for (const table of aroundTables) await copy(table)
  await copy('carried_bases')
  const units = await copy('units')
  const items = await copy('items')
  if (content !== from) await copySectionDates(trx, from, to)
  return { items, units }
}
/** Gives a course what stands around the units of another, beside what it has of that itself, and when that meets. */
export async function copyAround(trx: Knex, from: string, to: string): Promise<void> {
  const content = await contentOf(trx, from)
  for (const table of aroundTables)
    await written(
      trx,
      `INSERT IGNORE INTO ${table} (course_id, ${aroundColumns[table]})
       SELECT :to, ${aroundColumns[table]} FROM ${table} WHERE course_id = :content`,
      { to, content },
    )
  await copyMeetings(trx, from, to)
}
/** What of a course its content is, in the order in which it can be taken away. */
export const contentTables = ['items', 'units', ...aroundTables, 'carried_bases'] as const
/** Takes the content of a course away. What students did there stays: it hangs off their enrolments. */
export async function dropContent(trx: Knex, courseId: string): Promise<void> {
  for (const table of contentTables) await trx(table).where({ course_id: courseId }).delete()
}
/** Whether a course holds anything at all, around its units too. */
export async function holdsAnything(db: Knex, courseId: string): Promise<boolean> {
  const [row] = await selectRows<{ holds: number }>(db, `SELECT ${holdings.join(' OR ')} AS holds`, {
    courseId,
  })
  return Number(row?.holds) === 1
}
const holdings = contentTables.map(table => `EXISTS (SELECT 1 FROM ${table} WHERE course_id = :courseId)`)
/** Leaves only some items, by lineage, in a course that was just copied. */
export async function keepItems(trx: Knex, courseId: string, kept: readonly string[]): Promise<void> {
  await trx('items').where({ course_id: courseId }).whereNotIn('lineage', kept).delete()
  // Nothing names what was taken out: neither what shows it, nor what an earlier run knew of it.
  await trx('furnishings')
    .where({ course_id: courseId })
    .whereNotNull('item_lineage')
    .whereNotIn('item_lineage', kept)
    .delete()
  await trx('carried_bases').where({ course_id: courseId }).delete()
}
/** A section shows dates of its own: a copy of what it shows has those. */
async function copySectionDates(trx: Knex, from: string, to: string): Promise<void> {
  await written(
    trx,
    `UPDATE units JOIN section_openings own ON own.course_id = :from AND own.lineage = units.lineage
     SET units.opens = own.opens WHERE units.course_id = :to`,
    { from, to },
  )
  await written(
    trx,
    `UPDATE items JOIN section_dates own ON own.course_id = :from AND own.lineage = items.lineage
     SET items.opens = own.opens, items.due = own.due, items.closes = own.closes
     WHERE items.course_id = :to`,
    { from, to },
  )
}
export const copyMeetings = (trx: Knex, from: string, to: string): Promise<number> =>
  written(
    trx,
    `INSERT INTO meetings (course_id, position, weekday, start, \`end\`, room)
     SELECT :to, position, weekday, start, \`end\`, room FROM meetings WHERE course_id = :from`,
    { from, to },
  )
