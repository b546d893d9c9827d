import type { Knex } from 'knex'
import { itemFieldColumns, plannedItemFields } from '../../core/course/fields'
import { datesOf, noDates, type ItemDates } from '../../core/course/dates'
import { pointsText } from '../../core/grading/points'
import type { Placement } from '../../core/plan/effect'
import type { PlanDocument } from '../../core/plan/document'
import { putGrace } from '../courses/around.queries'
import type { StandingNode } from '../courses/content.queries'
import { written } from '../db/rows'

/** What is to be of a category or the rules, as the statements read it: decimals as text, flags as numbers. */
function detailsOf({ details, entity }: Placement): string | null {
  if (!details) return null
  if (entity !== 'category') return JSON.stringify(details)
  const weight = details.weight === null ? null : pointsText(details.weight)
  return JSON.stringify({ ...details, weight, exempt: details.exempt ? 1 : 0 })
}
const madePoints = ({ made }: Placement): string | null =>
  made && made.points !== null ? pointsText(made.points) : null
/** One thing that a run writes, as the statements read it: decimals and nested values as text, flags as numbers. */
interface WrittenRow extends ItemDates {
  entity: Placement['entity']
  action: Placement['action']
  lineage: string
  /** The source that it comes from; null of what the plan makes. */
  source_course_id: string | null
  source_lineage: string
  parent_lineage: string | null
  position: number
  parts: string | null
  title: string | null
  body_hash: string | null
  text_from: Placement['textFrom']
  settings: string | null
  points: string | null
  exam: number | null
  alone: number
  kind: string | null
  state: string | null
  category_lineage: string | null
  rubric_lineage: string | null
  group_lineage: string | null
  grading_period: string | null
  exempt: number | null
  extra: number | null
  details: string | null
}
const flag = (value: boolean | undefined): number | null => (value === undefined ? null : Number(value))
/** What a run writes, and from where. */
export interface Writing {
  placements: readonly Placement[]
  /** By a placement's `from`. */
  sourceIds: readonly string[]
  /** Hashes of the texts that the run makes, by the lineage of the source's thing. */
  made: ReadonlyMap<string, string>
  found?: PlanDocument['added']['found']
}
function rowFor(placement: Placement, { sourceIds, made, found = {} }: Writing): WrittenRow {
  const { action, entity, lineage, source, parent, position, dates, from, parts, arrives } = placement
  return {
    entity,
    action,
    lineage,
    source_course_id: sourceIds[from] ?? null,
    // What was taken of another course may stand there under another key.
    source_lineage: found[source]?.lineage ?? source,
    parent_lineage: parent,
    position,
    ...datesOf(dates ?? noDates),
    parts: parts && parts.join(','),
    title: placement.title,
    body_hash: placement.textFrom === 'made' ? (made.get(source) ?? null) : null,
    text_from: placement.textFrom,
    settings: placement.settings && JSON.stringify(placement.settings),
    points: madePoints(placement),
    exam: flag(placement.made?.exam),
    alone: Number(placement.alone),
    kind: arrives?.kind ?? null,
    state: arrives?.state ?? placement.unitState,
    category_lineage: arrives?.category ?? null,
    rubric_lineage: arrives?.rubric ?? null,
    group_lineage: arrives?.group ?? null,
    grading_period: arrives?.gradingPeriod ?? null,
    exempt: flag(arrives?.exempt),
    extra: flag(arrives?.extra),
    details: detailsOf(placement),
  }
}
const rowsOf = (writing: Writing): WrittenRow[] =>
  writing.placements.map(placement => rowFor(placement, writing))

const idText = 'CHAR(36) CHARACTER SET ascii COLLATE ascii_bin'
const wallText = 'CHAR(16) CHARACTER SET ascii COLLATE ascii_bin'
const shortText = 'VARCHAR(200) CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'
const anyText = 'LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci'
const rowColumns = {
  action: shortText,
  lineage: idText,
  source_course_id: idText,
  source_lineage: idText,
  parent_lineage: idText,
  position: 'INT',
  opens: wallText,
  due: wallText,
  closes: wallText,
  parts: shortText,
  title: 'VARCHAR(500) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci',
  body_hash: 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin',
  text_from: shortText,
  settings: anyText,
  points: shortText,
  exam: 'INT',
  alone: 'INT',
  kind: shortText,
  state: shortText,
  category_lineage: idText,
  rubric_lineage: idText,
  group_lineage: idText,
  grading_period: shortText,
  exempt: 'INT',
  extra: 'INT',
  details: anyText,
} as const satisfies Partial<Record<keyof WrittenRow, string>>
/** Rows as one document, of what is named; as bytes, since the driver looks through a text letter by letter for what it must mask. */
const sent = (rows: readonly WrittenRow[], names: string[]): Buffer =>
  Buffer.from(JSON.stringify(rows, names))
/** Where a statement reads the rows that it is given, as a table `e`: no row of it is ever stored. */
const given = 'GIVEN'
/**
 * A statement as the database gets it: of its rows only the columns are read that one of them says, and a column that none says is nothing, so
 * that it costs only where it is needed. @throws Error where it names a column that no row can have.
 */
function asRead(sql: string, said: ReadonlySet<string>): string {
  const columns = Object.entries(rowColumns).flatMap(([name, type]) =>
    said.has(name) ? [`\`${name}\` ${type} PATH '$.${name}'`] : [],
  )
  return sql
    .replace(/\be\.(\w+)/g, (_, name: string) => {
      if (!Object.hasOwn(rowColumns, name)) throw new Error(`rows that a run writes have no column ${name}`)
      return said.has(name) ? `e.\`${name}\`` : 'NULL'
    })
    .replace(
      given,
      () => `JSON_TABLE(CONVERT(:rows USING utf8mb4), '$[*]' COLUMNS (${columns.join(', ')})) e`,
    )
}
const saidBy = (rows: readonly WrittenRow[]): ReadonlySet<string> =>
  new Set(
    Object.keys(rowColumns).filter(name => rows.some(row => row[name as keyof typeof rowColumns] !== null)),
  )

type Table =
  'grade_categories' | 'grade_rules' | 'units' | 'items' | 'rubrics' | 'work_groups' | 'furnishings'
/** The same things in their sources. */
const ofSource = (table: Table): string =>
  `JOIN ${table} s ON s.course_id = e.source_course_id AND s.lineage = e.source_lineage`
const taken = (part: string, value: string, own: string): string =>
  `${own} = IF(e.parts IS NULL OR FIND_IN_SET('${part}', e.parts), ${value}, ${own})`
/** What an item is graded by comes into a place of another kind too: only what that kind does not know stays away. */
const gradedBy = (value: string, own: string): string =>
  `${own} = IF(e.action = 'filled' OR e.parts IS NULL OR FIND_IN_SET('settings', e.parts), ${value}, ${own})`
/** Its text, where it is not the source's: one that the run makes, or none. */
const body = "IF(e.text_from = 'source', s.body_hash, e.body_hash)"
const mediaType = "IF(e.text_from = 'none', NULL, s.media_type)"
const settings = 'IF(e.settings IS NULL, s.settings, JSON_MERGE_PATCH(s.settings, e.settings))'
const releases = "IF(e.alone, '[]', s.releases)"
/** The plain fields of an item: what a plan says of them, else what the source has. */
const fieldColumns = itemFieldColumns.join(', ')
const valueOf = (column: string): string =>
  `${(plannedItemFields as string[]).includes(column) ? 'e' : 's'}.${column}`
const fieldValues = itemFieldColumns.map(valueOf).join(', ')
const fieldChanges = itemFieldColumns.map(column => gradedBy(valueOf(column), `t.${column}`)).join(', ')
/** Of what the plan makes itself there is no source: the rest is as nobody said it. */
const plannedColumns = plannedItemFields.join(', ')
const plannedValues = plannedItemFields.map(valueOf).join(', ')
const plannedChanges = plannedItemFields.map(column => gradedBy(`e.${column}`, `t.${column}`)).join(', ')
/** A text of what is made in the plan is a page. */
const madeType = "IF(e.body_hash IS NULL, NULL, 'text/html')"
const detail = (name: string): string => `JSON_VALUE(e.details, '$.${name}')`

interface Statement {
  entity: Placement['entity']
  actions: Placement['action'][]
  /** Of what a course has, or of what is made in the plan; else of both. */
  of?: 'courses' | 'plan'
  sql: string
}
const categoryDetails = `${detail('title')}, ${detail('weight')}, e.position, ${detail('identifier')}, ${detail('within')},
  ${detail('dropLowest')}, ${detail('dropHighest')}, ${detail('exempt')}`
/** What a run does, set by set, in this order: rows of metadata only; bodies stay shared. Each is counted against what was planned. */
const statements: Statement[] = [
  {
    entity: 'category',
    actions: ['added'],
    sql: `INSERT INTO grade_categories (course_id, lineage, title, weight, position, identifier, within, drop_lowest,
            drop_highest, exempt)
          SELECT :targetId, e.lineage, ${categoryDetails} FROM ${given}`,
  },
  {
    entity: 'category',
    actions: ['replaced', 'moved'],
    sql: `UPDATE grade_categories t JOIN ${given} ON e.lineage = t.lineage
          SET t.title = ${detail('title')}, t.weight = ${detail('weight')}, t.position = e.position,
            t.within = ${detail('within')}, t.drop_lowest = ${detail('dropLowest')},
            t.drop_highest = ${detail('dropHighest')}, t.exempt = ${detail('exempt')}
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'rubric',
    actions: ['added'],
    sql: `INSERT INTO rubrics (course_id, lineage, identifier, position, title, criteria)
          SELECT :targetId, e.lineage, s.identifier, e.position, IFNULL(e.title, s.title), IFNULL(e.details, s.criteria)
          FROM ${given} ${ofSource('rubrics')}`,
  },
  {
    entity: 'group',
    actions: ['added'],
    sql: `INSERT INTO work_groups (course_id, lineage, identifier, position, title)
          SELECT :targetId, e.lineage, s.identifier, e.position, IFNULL(e.title, s.title)
          FROM ${given} ${ofSource('work_groups')}`,
  },
  {
    entity: 'furnishing',
    actions: ['cleared'],
    sql: `DELETE t FROM furnishings t JOIN ${given} ON e.lineage = t.lineage
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'furnishing',
    actions: ['replaced'],
    sql: `UPDATE furnishings t JOIN ${given} ON e.lineage = t.lineage
          ${ofSource('furnishings')}
          SET t.title = IFNULL(e.title, s.title), t.item_lineage = s.item_lineage, t.details = IFNULL(e.details, s.details)
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'furnishing',
    actions: ['added'],
    sql: `INSERT INTO furnishings (course_id, lineage, part, position, title, item_lineage, details)
          SELECT :targetId, e.lineage, s.part, e.position, IFNULL(e.title, s.title), s.item_lineage, IFNULL(e.details, s.details)
          FROM ${given} ${ofSource('furnishings')}`,
  },
  {
    entity: 'unit',
    actions: ['added'],
    of: 'courses',
    sql: `INSERT INTO units (course_id, lineage, parent_lineage, position, title, state, opens, identifier, made_by)
          SELECT :targetId, e.lineage, e.parent_lineage, e.position, IFNULL(e.title, s.title), e.state, e.opens,
            s.identifier, 'run'
          FROM ${given} ${ofSource('units')}`,
  },
  {
    entity: 'unit',
    actions: ['added'],
    of: 'plan',
    sql: `INSERT INTO units (course_id, lineage, parent_lineage, position, title, state, opens, made_by)
          SELECT :targetId, e.lineage, e.parent_lineage, e.position, e.title, 'visible', e.opens, 'run'
          FROM ${given}`,
  },
  {
    entity: 'unit',
    actions: ['filled', 'replaced'],
    of: 'plan',
    sql: `UPDATE units t JOIN ${given} ON e.lineage = t.lineage
          SET t.parent_lineage = e.parent_lineage, t.position = e.position, ${taken('title', 'e.title', 't.title')},
            ${taken('dates', 'e.opens', 't.opens')}
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'item',
    actions: ['added'],
    of: 'plan',
    sql: `INSERT INTO items (course_id, lineage, parent_lineage, position, kind, title, state, exam, points,
            category_lineage, opens, due, closes, grading_period, body_hash, media_type, settings, ${plannedColumns}, made_by)
          SELECT :targetId, e.lineage, e.parent_lineage, e.position, e.kind, e.title, e.state, e.exam, e.points,
            e.category_lineage, e.opens, e.due, e.closes, e.grading_period, e.body_hash, ${madeType}, IFNULL(e.settings, '{}'),
            ${plannedValues}, 'run'
          FROM ${given}`,
  },
  {
    entity: 'item',
    actions: ['filled', 'replaced'],
    of: 'plan',
    sql: `UPDATE items t JOIN ${given} ON e.lineage = t.lineage
          SET t.parent_lineage = e.parent_lineage, t.position = e.position, ${taken('title', 'e.title', 't.title')},
            ${taken('text', 'e.body_hash', 't.body_hash')}, ${taken('text', madeType, 't.media_type')},
            ${taken('settings', 'e.kind', 't.kind')}, ${taken('settings', 'e.exam', 't.exam')},
            ${taken('settings', "IFNULL(e.settings, '{}')", 't.settings')},
            ${plannedChanges},
            ${taken('points', 'e.points', 't.points')}, ${taken('category', 'e.category_lineage', 't.category_lineage')},
            ${taken('dates', 'e.opens', 't.opens')}, ${taken('dates', 'e.due', 't.due')},
            ${taken('dates', 'e.closes', 't.closes')}, ${taken('dates', 'e.grading_period', 't.grading_period')},
            ${taken('state', 'e.state', 't.state')},
            t.holds = IF(e.action = 'filled', NULL, t.holds), ${taken('text', "'run'", 't.made_by')}
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'unit',
    actions: ['filled', 'replaced'],
    of: 'courses',
    sql: `UPDATE units t JOIN ${given} ON e.lineage = t.lineage
          ${ofSource('units')}
          SET t.parent_lineage = e.parent_lineage, t.position = e.position, ${taken('title', 'IFNULL(e.title, s.title)', 't.title')},
            ${taken('state', 'e.state', 't.state')}, ${taken('dates', 'e.opens', 't.opens')}
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'unit',
    actions: ['moved'],
    sql: `UPDATE units t JOIN ${given} ON e.lineage = t.lineage
          SET t.parent_lineage = e.parent_lineage, t.position = e.position WHERE t.course_id = :targetId`,
  },
  {
    entity: 'unit',
    actions: ['dated'],
    sql: `UPDATE units t JOIN ${given} ON e.lineage = t.lineage
          SET t.parent_lineage = e.parent_lineage, t.position = e.position, t.opens = e.opens
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'unit',
    actions: ['cleared'],
    sql: `UPDATE units t JOIN ${given} ON e.lineage = t.lineage
          SET t.state = 'deleted' WHERE t.course_id = :targetId`,
  },
  {
    entity: 'item',
    actions: ['added'],
    of: 'courses',
    sql: `INSERT INTO items (course_id, lineage, parent_lineage, position, kind, title, state, exam, points,
            category_lineage, opens, due, closes, grading_period, body_hash, media_type, settings, identifier, rubric_lineage,
            group_lineage, releases, ${fieldColumns}, made_by)
          SELECT :targetId, e.lineage, e.parent_lineage, e.position, s.kind, IFNULL(e.title, s.title), e.state, s.exam,
            s.points, e.category_lineage, e.opens, e.due, e.closes, e.grading_period, ${body}, ${mediaType}, ${settings},
            s.identifier, e.rubric_lineage, e.group_lineage, ${releases}, ${fieldValues}, 'run'
          FROM ${given} ${ofSource('items')}`,
  },
  {
    entity: 'item',
    actions: ['filled', 'replaced'],
    of: 'courses',
    sql: `UPDATE items t JOIN ${given} ON e.lineage = t.lineage
          ${ofSource('items')}
          SET t.parent_lineage = e.parent_lineage, t.position = e.position,
            ${taken('title', 'IFNULL(e.title, s.title)', 't.title')},
            ${taken('text', body, 't.body_hash')}, ${taken('text', mediaType, 't.media_type')},
            ${taken('settings', settings, 't.settings')}, ${gradedBy('e.rubric_lineage', 't.rubric_lineage')},
            ${gradedBy('e.group_lineage', 't.group_lineage')}, ${gradedBy(releases, 't.releases')},
            ${fieldChanges},
            ${taken('settings', 's.exam', 't.exam')}, ${taken('settings', 'e.kind', 't.kind')},
            ${taken('points', 's.points', 't.points')}, ${taken('category', 'e.category_lineage', 't.category_lineage')},
            ${taken('dates', 'e.opens', 't.opens')}, ${taken('dates', 'e.due', 't.due')},
            ${taken('dates', 'e.closes', 't.closes')}, ${taken('dates', 'e.grading_period', 't.grading_period')},
            ${taken('state', 'e.state', 't.state')},
            t.holds = IF(e.action = 'filled', NULL, t.holds), ${taken('text', "'run'", 't.made_by')}
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'item',
    actions: ['moved'],
    sql: `UPDATE items t JOIN ${given} ON e.lineage = t.lineage
          SET t.parent_lineage = e.parent_lineage, t.position = e.position WHERE t.course_id = :targetId`,
  },
]
/** An empty place that nothing fills is gone; anything else that is removed stays as a deleted one, with what students did there. */
const clearItems = [
  `DELETE t FROM items t JOIN ${given} ON e.lineage = t.lineage
   WHERE t.course_id = :targetId AND t.holds IS NOT NULL`,
  `UPDATE items t JOIN ${given} ON e.lineage = t.lineage
   SET t.state = 'deleted' WHERE t.course_id = :targetId AND t.holds IS NULL`,
]

/** One step of a run with the rows that its statements are given, ready to be sent. */
interface ReadyWrite {
  readonly what: string
  readonly statements: readonly string[]
  readonly rows: Buffer
  /** How many rows it must write; null where that says nothing. */
  readonly wanted: number | null
}
const readyWrite = (
  statements: readonly string[],
  rows: readonly WrittenRow[],
): Pick<ReadyWrite, 'statements' | 'rows'> => {
  const said = saidBy(rows)
  return { statements: statements.map(sql => asRead(sql, said)), rows: sent(rows, [...said]) }
}
/** What writes some things into a shell, set by set, in the order in which it is done. */
function readyWrites(writing: Writing): ReadyWrite[] {
  const rows = rowsOf(writing)
  const these = (
    entity: Placement['entity'],
    actions: readonly Placement['action'][],
    of?: Statement['of'],
  ): WrittenRow[] =>
    rows.filter(
      (row, at) =>
        row.entity === entity &&
        actions.includes(row.action) &&
        (!of || of === (writing.placements[at]?.made ? 'plan' : 'courses')),
    )
  const writes = statements.flatMap(({ entity, actions, of, sql }): ReadyWrite[] => {
    const some = these(entity, actions, of)
    if (some.length === 0) return []
    const what = `rows of ${entity} (${actions.join(', ')})`
    return [{ ...readyWrite([sql], some), what, wanted: some.length }]
  })
  const cleared = these('item', ['cleared'])
  if (cleared.length > 0)
    writes.push({ ...readyWrite(clearItems, cleared), what: 'items cleared', wanted: cleared.length })
  const rules = these('rules', ['added', 'replaced'])
  if (rules.length > 0) writes.push({ ...readyWrite([writeRules], rules), what: 'rules', wanted: null })
  return writes
}
/**
 * Writes into the shell; `told` how many things that were so far. @throws Error where another number of rows was written than
 * was planned: nothing is committed then.
 */
export async function writeContent(
  trx: Knex,
  targetId: string,
  writing: Writing,
  told: (wrote: number) => Promise<void>,
): Promise<void> {
  let done = 0
  for (const { what, statements, rows, wanted } of readyWrites(writing)) {
    let wrote = 0
    for (const sql of statements) wrote += await written(trx, sql, { targetId, rows })
    if (wanted === null) continue
    if (wrote !== wanted) throw new Error(`${wrote} ${what} written into ${targetId}, ${wanted} planned`)
    await told((done += wanted))
  }
  await writeGrace(trx, targetId, writing.placements)
}
/** Writes how often students of a course may hand in later, where the plan changes it. */
export async function writeGrace(
  trx: Knex,
  courseId: string,
  placements: readonly Placement[],
): Promise<void> {
  const grace = placements.find(placement => placement.entity === 'grace')
  if (grace) await putGrace(trx, courseId, grace.details)
}
const writeRules = `
  INSERT INTO grade_rules (course_id, reckoned_by, ungraded, decimals, scale)
  SELECT :targetId, ${detail('by')}, ${detail('ungraded')}, ${detail('decimals')}, JSON_QUERY(e.details, '$.scale')
  FROM ${given}
  ON DUPLICATE KEY UPDATE reckoned_by = VALUES(reckoned_by), ungraded = VALUES(ungraded),
    decimals = VALUES(decimals), scale = VALUES(scale)`

/** Gives the items of a course, which stay where they are, their new dates, and takes out of them and its units what the rows say: another title, another text, other settings. */
export async function writeInto(trx: Knex, courseId: string, writing: Writing): Promise<void> {
  const rows = rowsOf(writing)
  const write = async (entity: Placement['entity'], sql: string): Promise<void> => {
    const some = rows.filter(row => row.entity === entity)
    if (some.length === 0) return
    const ready = readyWrite([sql], some)
    for (const statement of ready.statements) await written(trx, statement, { courseId, rows: ready.rows })
  }
  await write(
    'item',
    `UPDATE items t JOIN ${given} ON e.lineage = t.lineage
     SET t.opens = e.opens, t.due = e.due, t.closes = e.closes, t.grading_period = e.grading_period,
       t.title = IFNULL(e.title, t.title), t.body_hash = IF(e.text_from = 'made', e.body_hash, t.body_hash),
       t.settings = IF(e.settings IS NULL, t.settings, JSON_MERGE_PATCH(t.settings, e.settings))
     WHERE t.course_id = :courseId`,
  )
  await write(
    'unit',
    `UPDATE units t JOIN ${given} ON e.lineage = t.lineage
     SET t.title = IFNULL(e.title, t.title), t.opens = e.opens WHERE t.course_id = :courseId`,
  )
}
const writesDates = ({ entity, action, parts }: Placement): boolean =>
  (entity === 'item' || entity === 'unit') &&
  (action === 'added' || action === 'filled' || action === 'replaced' || action === 'dated') &&
  (parts === null || parts.includes('dates'))
/** How many dates stand in a course on the units and items whose dates a run wrote. */
export function datesWritten(
  stands: readonly Pick<StandingNode, 'lineage' | 'dates'>[],
  placements: readonly Placement[],
): number {
  const dated = new Set(placements.filter(writesDates).map(({ lineage }) => lineage))
  return stands.reduce((sum, { lineage, dates }) => sum + (dated.has(lineage) ? dates : 0), 0)
}
