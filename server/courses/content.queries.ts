import type { Knex } from 'knex'
import { datesOf, noDates, type ItemDates } from '../../core/course/dates'
import type { Body, CourseContent, CourseNode, ItemKind, ItemState } from '../../core/course/model'
import { inCourseOrder, type OutlineNode } from '../../core/course/outline'
import { parsePoints, pointsText } from '../../core/grading/points'
import { inBatches, json, jsonOf, selectRows, written } from '../db/rows'
import type { GradeCategoryRow, ItemRow, UnitRow } from '../db/tables'
import { storeStreams } from './bodies.queries'
import { contentOf } from './sections.queries'

/** The number in a decimal column; null where there is none. */
const numberOf = (decimal: string | null): number | null => (decimal === null ? null : parsePoints(decimal))

const unitsOf = (db: Knex, courseId: string): Promise<UnitRow[]> =>
  db('units').where({ course_id: courseId }).whereNot({ state: 'deleted' })
type OutlineItem = Omit<ItemRow, 'body_hash' | 'media_type' | 'settings'>
const itemsOf = (db: Knex, courseId: string, withheld: ReadonlySet<ItemKind>): Promise<OutlineItem[]> =>
  db('items')
    .where({ course_id: courseId })
    .whereNot({ state: 'deleted' })
    .whereNotIn('kind', [...withheld])
    .select(
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
      'opens',
      'due',
      'closes',
    )
/** The dates that a section's items have, by lineage. */
async function sectionDates(db: Knex, sectionId: string): Promise<Map<string, ItemDates>> {
  const rows = await db('section_dates').where({ course_id: sectionId })
  return new Map(rows.map(row => [row.lineage, datesOf(row)]))
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

const unitNode = (row: UnitRow) => ({
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
  ...noDates,
})
const itemNode = (row: OutlineItem, dates: ItemDates) => ({
  lineage: row.lineage,
  parent: row.parent_lineage,
  position: row.position,
  type: 'item' as const,
  title: row.title,
  kind: row.kind,
  state: row.state,
  exam: row.exam,
  points: numberOf(row.points),
  category: row.category_lineage,
  ...dates,
})
/**
 * Units and items of a course in its own order, with dates. Deleted things are not among them, nor are kinds that somebody
 * does not get (`withheld`).
 */
export async function loadOutline(
  db: Knex,
  courseId: string,
  withheld: ReadonlySet<ItemKind> = new Set(),
): Promise<OutlineNode[]> {
  const content = await contentOf(db, courseId)
  const units = await unitsOf(db, content)
  const items = await itemsOf(db, content, withheld)
  const own = content === courseId ? null : await sectionDates(db, courseId)
  const kept = withheld.size > 0 ? reachable(units, items) : items
  return inCourseOrder([
    ...units.map(unitNode),
    ...kept.map(row => itemNode(row, own ? (own.get(row.lineage) ?? noDates) : datesOf(row))),
  ])
}

/** Lineages of what was deleted in a course. */
export async function deletedIn(db: Knex, courseId: string): Promise<string[]> {
  const where = { course_id: await contentOf(db, courseId), state: 'deleted' } as const
  return [
    ...(await db('units').where(where).pluck('lineage')),
    ...(await db('items').where(where).pluck('lineage')),
  ]
}

export interface Category {
  lineage: string
  title: string
  weight: number | null
  position: number
}
export async function loadCategories(db: Knex, courseId: string): Promise<Category[]> {
  const rows = await db('grade_categories')
    .where({ course_id: await contentOf(db, courseId) })
    .orderBy('position')
    .select('lineage', 'title', 'weight', 'position')
  return rows.map(row => ({ ...row, weight: numberOf(row.weight) }))
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
    bodyHash: row.body_hash,
    size: row.size ?? 0,
    mediaType: row.media_type,
    settings: jsonOf(row.settings),
  }
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
function rowsOfTree(courseId: string, tree: readonly CourseNode[], hashes: Map<string, string>): ContentRows {
  const rows: ContentRows = { units: [], items: [] }
  const walk = (nodes: readonly CourseNode[], parent: string | null): void =>
    nodes.forEach((node, position) => {
      const place = { course_id: courseId, lineage: node.lineage, parent_lineage: parent, position }
      if (node.type === 'unit') rows.units.push({ ...place, title: node.title, state: 'visible' })
      else
        rows.items.push({
          ...place,
          ...node.dates,
          kind: node.kind,
          title: node.title,
          state: node.state,
          exam: node.exam,
          points: node.points === null ? null : pointsText(node.points),
          category_lineage: node.category,
          body_hash: hashes.get(node.lineage) ?? null,
          media_type: node.body?.mediaType ?? null,
          settings: json({ ...node.settings }),
        })
      walk(node.children, node.lineage)
    })
  walk(tree, null)
  return rows
}
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
  const { units, items } = rowsOfTree(courseId, content.nodes, hashes)
  const categories = content.categories.map(({ lineage, title, weight }, position): GradeCategoryRow => ({
    course_id: courseId,
    lineage,
    title,
    weight: weight === null ? null : pointsText(weight),
    position,
  }))
  for (const batch of inBatches(units)) await db('units').insert(batch)
  for (const batch of inBatches(items)) await db('items').insert(batch)
  for (const batch of inBatches(categories)) await db('grade_categories').insert(batch)
}

const contentColumns = {
  grade_categories: 'lineage, title, weight, position',
  units: 'lineage, parent_lineage, position, title, state',
  items: `lineage, parent_lineage, position, kind, title, state, exam, points, category_lineage, opens, due, closes,
    body_hash, media_type, settings`,
} as const
/** Copies everything that a course holds as content into another that holds none: rows of metadata, set by set; bodies stay shared. */
export async function copyWhole(
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
  await copy('grade_categories')
  const units = await copy('units')
  const items = await copy('items')
  if (content !== from) await copySectionDates(trx, from, to)
  await copyMeetings(trx, from, to)
  return { items, units }
}
/** Leaves only some items, by lineage, in a course that was just copied. */
export const keepItems = (trx: Knex, courseId: string, kept: readonly string[]): Promise<number> =>
  trx('items').where({ course_id: courseId }).whereNotIn('lineage', kept).delete()
/** A section shows dates of its own: a copy of what it shows has those. */
const copySectionDates = (trx: Knex, from: string, to: string): Promise<number> =>
  written(
    trx,
    `UPDATE items JOIN section_dates own ON own.course_id = :from AND own.lineage = items.lineage
     SET items.opens = own.opens, items.due = own.due, items.closes = own.closes
     WHERE items.course_id = :to`,
    { from, to },
  )
export const copyMeetings = (trx: Knex, from: string, to: string): Promise<number> =>
  written(
    trx,
    `INSERT INTO meetings (course_id, position, weekday, start, \`end\`, room)
     SELECT :to, position, weekday, start, \`end\`, room FROM meetings WHERE course_id = :from`,
    { from, to },
  )
