import type { Knex } from 'knex'
import { datesOf, noDates } from '../../core/course/dates'
import { reasonsOf } from '../../core/dates/plan'
import { pointsText } from '../../core/grading/points'
import type { Placement } from '../../core/plan/compile'
import type { PlanDocument } from '../../core/plan/document'
import { inBatches, json, selectRows, written } from '../db/rows'
import type { RunEntryRow } from '../db/tables'

/** What is to be of a category or the rules, as the statements read it: decimals as text, flags as numbers. */
function detailsOf({ details, entity }: Placement): RunEntryRow['details'] {
  if (!details) return null
  if (entity !== 'category') return json(details)
  const weight = details.weight === null ? null : pointsText(Number(details.weight))
  return json({ ...details, weight, exempt: details.exempt ? 1 : 0 })
}
const madePoints = ({ made }: Placement): string | null =>
  made && made.points !== null ? pointsText(made.points) : null
/**
 * Writes down what a run is about to do; the content is then written from these rows. `sourceIds`: by a placement's `from`. `made`: hashes of
 * the texts that it makes, by the lineage of the source's thing.
 */
export async function insertEntries(
  trx: Knex,
  {
    runId,
    sourceIds,
    made,
    found = {},
  }: {
    runId: string
    sourceIds: readonly string[]
    made: ReadonlyMap<string, string>
    found?: PlanDocument['added']['found']
  },
  placements: readonly Placement[],
): Promise<void> {
  const rows = placements.map(placement => {
    const { action, entity, lineage, source, parent, position, dates, from, parts, arrives } = placement
    return {
      run_id: runId,
      source_course_id: sourceIds[from] ?? null,
      // What was taken of another course may stand there under another key.
      source_lineage: found[source]?.lineage ?? source,
      entity,
      lineage,
      action,
      parent_lineage: parent,
      position,
      ...datesOf(dates ?? noDates),
      reasons: dates && json({ flags: dates.flags, reasons: reasonsOf(dates) }),
      parts: parts && parts.join(','),
      title: placement.title,
      body_hash: placement.textFrom === 'made' ? (made.get(source) ?? null) : null,
      text_from: placement.textFrom,
      settings: placement.settings && json({ ...placement.settings }),
      points: madePoints(placement),
      exam: placement.made?.exam ?? null,
      alone: placement.alone,
      kind: arrives?.kind ?? null,
      state: arrives?.state ?? null,
      category_lineage: arrives?.category ?? null,
      rubric_lineage: arrives?.rubric ?? null,
      group_lineage: arrives?.group ?? null,
      exempt: arrives?.exempt ?? null,
      extra: arrives?.extra ?? null,
      details: detailsOf(placement),
    }
  })
  for (const batch of inBatches(rows)) await trx('run_entries').insert(batch)
}

type Table =
  'grade_categories' | 'grade_rules' | 'units' | 'items' | 'rubrics' | 'work_groups' | 'furnishings'
/** Entries of a run with the same things of their sources, and of the shell. */
const entries = (entity: Placement['entity'], ...actions: Placement['action'][]): string =>
  `e.run_id = :runId AND e.entity = '${entity}' AND e.action IN (${actions.map(action => `'${action}'`).join(', ')})`
const ofSource = (table: Table): string =>
  `JOIN ${table} s ON s.course_id = e.source_course_id AND s.lineage = e.source_lineage`
const ofShell = (table: Table): string =>
  `JOIN ${table} t ON t.course_id = :targetId AND t.lineage = e.lineage`
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
/** A text of what is made in the plan is a page. */
const madeType = "IF(e.body_hash IS NULL, NULL, 'text/html')"
/** Entries of what is made in the plan: no course has it. */
const isMade = 'e.source_course_id IS NULL'
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
          SELECT :targetId, e.lineage, ${categoryDetails} FROM run_entries e WHERE ${entries('category', 'added')}`,
  },
  {
    entity: 'category',
    actions: ['replaced', 'moved'],
    sql: `UPDATE grade_categories t JOIN run_entries e ON ${entries('category', 'replaced', 'moved')}
            AND e.lineage = t.lineage
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
          FROM run_entries e ${ofSource('rubrics')} WHERE ${entries('rubric', 'added')}`,
  },
  {
    entity: 'group',
    actions: ['added'],
    sql: `INSERT INTO work_groups (course_id, lineage, identifier, position, title)
          SELECT :targetId, e.lineage, s.identifier, e.position, IFNULL(e.title, s.title)
          FROM run_entries e ${ofSource('work_groups')} WHERE ${entries('group', 'added')}`,
  },
  {
    entity: 'furnishing',
    actions: ['cleared'],
    sql: `DELETE t FROM furnishings t JOIN run_entries e ON ${entries('furnishing', 'cleared')} AND e.lineage = t.lineage
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'furnishing',
    actions: ['replaced'],
    sql: `UPDATE furnishings t JOIN run_entries e ON ${entries('furnishing', 'replaced')} AND e.lineage = t.lineage
          ${ofSource('furnishings')}
          SET t.title = IFNULL(e.title, s.title), t.item_lineage = s.item_lineage, t.details = IFNULL(e.details, s.details)
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'furnishing',
    actions: ['added'],
    sql: `INSERT INTO furnishings (course_id, lineage, part, position, title, item_lineage, details)
          SELECT :targetId, e.lineage, s.part, e.position, IFNULL(e.title, s.title), s.item_lineage, IFNULL(e.details, s.details)
          FROM run_entries e ${ofSource('furnishings')} WHERE ${entries('furnishing', 'added')}`,
  },
  {
    entity: 'unit',
    actions: ['added'],
    of: 'courses',
    sql: `INSERT INTO units (course_id, lineage, parent_lineage, position, title, state, identifier, made_by)
          SELECT :targetId, e.lineage, e.parent_lineage, e.position, IFNULL(e.title, s.title), IF(s.state = 'deleted', 'hidden', s.state),
            s.identifier, 'run'
          FROM run_entries e ${ofSource('units')} WHERE ${entries('unit', 'added')}`,
  },
  {
    entity: 'unit',
    actions: ['added'],
    of: 'plan',
    sql: `INSERT INTO units (course_id, lineage, parent_lineage, position, title, state, made_by)
          SELECT :targetId, e.lineage, e.parent_lineage, e.position, e.title, 'visible', 'run'
          FROM run_entries e WHERE ${entries('unit', 'added')} AND ${isMade}`,
  },
  {
    entity: 'unit',
    actions: ['filled', 'replaced'],
    of: 'plan',
    sql: `UPDATE units t JOIN run_entries e ON ${entries('unit', 'filled', 'replaced')} AND e.lineage = t.lineage AND ${isMade}
          SET t.parent_lineage = e.parent_lineage, t.position = e.position, ${taken('title', 'e.title', 't.title')}
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'item',
    actions: ['added'],
    of: 'plan',
    sql: `INSERT INTO items (course_id, lineage, parent_lineage, position, kind, title, state, exam, points,
            category_lineage, opens, due, closes, body_hash, media_type, settings, exempt, extra, made_by)
          SELECT :targetId, e.lineage, e.parent_lineage, e.position, e.kind, e.title, e.state, e.exam, e.points,
            e.category_lineage, e.opens, e.due, e.closes, e.body_hash, ${madeType}, IFNULL(e.settings, '{}'),
            e.exempt, e.extra, 'run'
          FROM run_entries e WHERE ${entries('item', 'added')} AND ${isMade}`,
  },
  {
    entity: 'item',
    actions: ['filled', 'replaced'],
    of: 'plan',
    sql: `UPDATE items t JOIN run_entries e ON ${entries('item', 'filled', 'replaced')} AND e.lineage = t.lineage AND ${isMade}
          SET t.parent_lineage = e.parent_lineage, t.position = e.position, ${taken('title', 'e.title', 't.title')},
            ${taken('text', 'e.body_hash', 't.body_hash')}, ${taken('text', madeType, 't.media_type')},
            ${taken('settings', 'e.kind', 't.kind')}, ${taken('settings', 'e.exam', 't.exam')},
            ${taken('settings', "IFNULL(e.settings, '{}')", 't.settings')},
            ${gradedBy('e.exempt', 't.exempt')}, ${gradedBy('e.extra', 't.extra')},
            ${taken('points', 'e.points', 't.points')}, ${taken('category', 'e.category_lineage', 't.category_lineage')},
            ${taken('dates', 'e.opens', 't.opens')}, ${taken('dates', 'e.due', 't.due')},
            ${taken('dates', 'e.closes', 't.closes')}, ${taken('state', 'e.state', 't.state')},
            t.holds = IF(e.action = 'filled', NULL, t.holds), ${taken('text', "'run'", 't.made_by')}
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'unit',
    actions: ['filled', 'replaced'],
    of: 'courses',
    sql: `UPDATE units t JOIN run_entries e ON ${entries('unit', 'filled', 'replaced')} AND e.lineage = t.lineage
          ${ofSource('units')}
          SET t.parent_lineage = e.parent_lineage, t.position = e.position, ${taken('title', 'IFNULL(e.title, s.title)', 't.title')},
            ${taken('state', "IF(s.state = 'deleted', 'hidden', s.state)", 't.state')}
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'unit',
    actions: ['moved'],
    sql: `UPDATE units t JOIN run_entries e ON ${entries('unit', 'moved')} AND e.lineage = t.lineage
          SET t.parent_lineage = e.parent_lineage, t.position = e.position WHERE t.course_id = :targetId`,
  },
  {
    entity: 'unit',
    actions: ['cleared'],
    sql: `UPDATE units t JOIN run_entries e ON ${entries('unit', 'cleared')} AND e.lineage = t.lineage
          SET t.state = 'deleted' WHERE t.course_id = :targetId`,
  },
  {
    entity: 'item',
    actions: ['added'],
    of: 'courses',
    sql: `INSERT INTO items (course_id, lineage, parent_lineage, position, kind, title, state, exam, points,
            category_lineage, opens, due, closes, body_hash, media_type, settings, identifier, rubric_lineage,
            group_lineage, releases, exempt, extra, made_by)
          SELECT :targetId, e.lineage, e.parent_lineage, e.position, s.kind, IFNULL(e.title, s.title), e.state, s.exam, s.points,
            e.category_lineage, e.opens, e.due, e.closes, ${body}, ${mediaType}, ${settings}, s.identifier,
            e.rubric_lineage, e.group_lineage, ${releases}, e.exempt, e.extra, 'run'
          FROM run_entries e ${ofSource('items')} WHERE ${entries('item', 'added')}`,
  },
  {
    entity: 'item',
    actions: ['filled', 'replaced'],
    of: 'courses',
    sql: `UPDATE items t JOIN run_entries e ON ${entries('item', 'filled', 'replaced')} AND e.lineage = t.lineage
          ${ofSource('items')}
          SET t.parent_lineage = e.parent_lineage, t.position = e.position,
            ${taken('title', 'IFNULL(e.title, s.title)', 't.title')},
            ${taken('text', body, 't.body_hash')}, ${taken('text', mediaType, 't.media_type')},
            ${taken('settings', settings, 't.settings')}, ${gradedBy('e.rubric_lineage', 't.rubric_lineage')},
            ${gradedBy('e.group_lineage', 't.group_lineage')}, ${gradedBy(releases, 't.releases')},
            ${gradedBy('e.exempt', 't.exempt')}, ${gradedBy('e.extra', 't.extra')},
            ${taken('settings', 's.exam', 't.exam')}, ${taken('settings', 'e.kind', 't.kind')},
            ${taken('points', 's.points', 't.points')}, ${taken('category', 'e.category_lineage', 't.category_lineage')},
            ${taken('dates', 'e.opens', 't.opens')}, ${taken('dates', 'e.due', 't.due')},
            ${taken('dates', 'e.closes', 't.closes')}, ${taken('state', 'e.state', 't.state')},
            t.holds = IF(e.action = 'filled', NULL, t.holds), ${taken('text', "'run'", 't.made_by')}
          WHERE t.course_id = :targetId`,
  },
  {
    entity: 'item',
    actions: ['moved'],
    sql: `UPDATE items t JOIN run_entries e ON ${entries('item', 'moved')} AND e.lineage = t.lineage
          SET t.parent_lineage = e.parent_lineage, t.position = e.position WHERE t.course_id = :targetId`,
  },
]
/** An empty place that nothing fills is gone; anything else that is removed stays as a deleted one, with what students did there. */
const clearings = [
  `DELETE t FROM items t JOIN run_entries e ON ${entries('item', 'cleared')} AND e.lineage = t.lineage
   WHERE t.course_id = :targetId AND t.holds IS NOT NULL`,
  `UPDATE items t JOIN run_entries e ON ${entries('item', 'cleared')} AND e.lineage = t.lineage
   SET t.state = 'deleted' WHERE t.course_id = :targetId AND t.holds IS NULL`,
]

const formerColumns = {
  category: ['title', 'weight', 'position', 'within', 'drop_lowest', 'drop_highest', 'exempt'],
  unit: ['parent_lineage', 'position', 'title', 'state', 'identifier', 'fixed', 'made_by'],
  item: [
    'parent_lineage',
    'position',
    'kind',
    'title',
    'state',
    'exam',
    'points',
    'category_lineage',
    'opens',
    'due',
    'closes',
    'body_hash',
    'media_type',
    'settings',
    'identifier',
    'rubric_lineage',
    'group_lineage',
    'releases',
    'exempt',
    'extra',
    'holds',
    'fixed',
    'made_by',
  ],
  rules: ['reckoned_by', 'ungraded', 'decimals', 'scale'],
  furnishing: ['part', 'position', 'title', 'item_lineage', 'details'],
} as const
const formerTables = {
  category: 'grade_categories',
  unit: 'units',
  item: 'items',
  furnishing: 'furnishings',
} as const
/** Keeps the former row of whatever a run is about to write over, move or take away: it can be put back. */
async function keepFormer(trx: Knex, runId: string, targetId: string): Promise<void> {
  const names = { runId, targetId }
  // Columns differ in how they are compared; one object takes them as one kind of text.
  const asObject = (columns: readonly string[]): string =>
    `JSON_OBJECT(${columns.map(column => `'${column}', CONVERT(t.${column} USING utf8mb4)`).join(', ')})`
  for (const [entity, table] of Object.entries(formerTables) as [keyof typeof formerTables, Table][])
    await written(
      trx,
      `UPDATE run_entries e ${ofShell(table)} SET e.former = ${asObject(formerColumns[entity])}
       WHERE ${entries(entity, 'filled', 'replaced', 'moved', 'cleared')}`,
      names,
    )
  await written(
    trx,
    `UPDATE run_entries e JOIN grade_rules t ON t.course_id = :targetId
     SET e.former = ${asObject(formerColumns.rules)} WHERE ${entries('rules', 'replaced')}`,
    names,
  )
}

/**
 * Writes what a run's entries say into the shell, set by set. @throws Error where another number of rows was written than was planned:
 * nothing is committed then.
 */
export async function writeContent(
  trx: Knex,
  runId: string,
  targetId: string,
  placements: readonly Placement[],
): Promise<void> {
  const names = { runId, targetId }
  const planned = (
    entity: Placement['entity'],
    actions: readonly Placement['action'][],
    of?: Statement['of'],
  ): number =>
    placements
      .filter(entry => entry.entity === entity && actions.includes(entry.action))
      .filter(entry => !of || of === (entry.made ? 'plan' : 'courses')).length
  const check = (what: string, wrote: number, wanted: number): void => {
    if (wrote !== wanted) throw new Error(`run ${runId}: ${wrote} ${what} written, ${wanted} planned`)
  }
  await keepFormer(trx, runId, targetId)
  for (const { entity, actions, of, sql } of statements) {
    const wanted = planned(entity, actions, of)
    if (wanted > 0) check(`rows of ${entity} (${actions.join(', ')})`, await written(trx, sql, names), wanted)
  }
  const cleared = planned('item', ['cleared'])
  if (cleared > 0) {
    let rows = 0
    for (const sql of clearings) rows += await written(trx, sql, names)
    check('items cleared', rows, cleared)
  }
  if (planned('rules', ['added', 'replaced']) > 0) await written(trx, writeRules, names)
}
const writeRules = `
  INSERT INTO grade_rules (course_id, reckoned_by, ungraded, decimals, scale)
  SELECT :targetId, ${detail('by')}, ${detail('ungraded')}, ${detail('decimals')}, JSON_QUERY(e.details, '$.scale')
  FROM run_entries e WHERE ${entries('rules', 'added', 'replaced')}
  ON DUPLICATE KEY UPDATE reckoned_by = VALUES(reckoned_by), ungraded = VALUES(ungraded),
    decimals = VALUES(decimals), scale = VALUES(scale)`

/** Gives the items of a course the dates that a run's entries name. */
export async function writeDates(trx: Knex, runId: string, courseId: string): Promise<void> {
  await written(
    trx,
    `UPDATE items JOIN run_entries e ON e.run_id = :runId AND e.entity = 'item' AND e.lineage = items.lineage
     SET items.opens = e.opens, items.due = e.due, items.closes = e.closes
     WHERE items.course_id = :courseId`,
    { runId, courseId },
  )
}
/** Takes out of a course's own units and items what its entries say: another title, another text, other settings. */
export async function writeCleaned(trx: Knex, runId: string, courseId: string): Promise<void> {
  const names = { runId, courseId }
  await written(
    trx,
    `UPDATE items t JOIN run_entries e ON ${entries('item', 'replaced')} AND e.lineage = t.lineage
     SET t.title = IFNULL(e.title, t.title), t.body_hash = IF(e.text_from = 'made', e.body_hash, t.body_hash),
       t.settings = IF(e.settings IS NULL, t.settings, JSON_MERGE_PATCH(t.settings, e.settings))
     WHERE t.course_id = :courseId`,
    names,
  )
  await written(
    trx,
    `UPDATE units t JOIN run_entries e ON ${entries('unit', 'replaced')} AND e.lineage = t.lineage
     SET t.title = IFNULL(e.title, t.title) WHERE t.course_id = :courseId`,
    names,
  )
}
/** How many dates stand in a course on the items whose dates a run wrote. */
export async function countDates(trx: Knex, runId: string, courseId: string): Promise<number> {
  const [row] = await selectRows<{ dates: number }>(
    trx,
    `SELECT COUNT(items.opens) + COUNT(items.due) + COUNT(items.closes) AS dates
     FROM items JOIN run_entries e ON ${entries('item', 'added', 'filled', 'replaced')} AND e.lineage = items.lineage
       AND (e.parts IS NULL OR FIND_IN_SET('dates', e.parts))
     WHERE items.course_id = :courseId`,
    { runId, courseId },
  )
  return row?.dates ?? 0
}
