import type { Knex } from 'knex'
import { hash, id, key, tableOptions, title, word } from './columns'

const maker = "ENUM('person', 'template', 'run') NOT NULL DEFAULT 'person'"
const flag = 'BOOLEAN NOT NULL DEFAULT FALSE'

/**
 * What Carry speaks of gets a place: how grades are reckoned, rubrics, groups that work is for, releases under a condition, empty places of
 * templates, what the institution fixed, what stands around the units; and what was carried last, for the next run to compare with.
 */
export async function places(db: Knex): Promise<void> {
  await db.raw(
    `ALTER TABLE grade_categories
       ADD identifier ${key} NULL,
       ADD within ENUM('points', 'equal') NOT NULL DEFAULT 'points',
       ADD drop_lowest INT NOT NULL DEFAULT 0,
       ADD drop_highest INT NOT NULL DEFAULT 0,
       ADD exempt ${flag},
       ADD fixed ${flag}`,
  )
  await db.raw(`ALTER TABLE units ADD identifier ${key} NULL, ADD fixed ${flag}, ADD made_by ${maker}`)
  // "holds": the kinds that an empty place can take; null for whatever is no empty place.
  await db.raw(
    `ALTER TABLE items
       ADD identifier ${key} NULL,
       ADD rubric_lineage ${id} NULL,
       ADD group_lineage ${id} NULL,
       ADD releases JSON NOT NULL DEFAULT '[]',
       ADD exempt ${flag},
       ADD extra ${flag},
       ADD holds JSON NULL,
       ADD fixed ${flag},
       ADD made_by ${maker}`,
  )
  for (const table of tables) await db.raw(`${table} ${tableOptions}`)
  await db.raw(
    `ALTER TABLE run_entries
       MODIFY entity ENUM('category', 'unit', 'item', 'course', 'rubric', 'group', 'furnishing', 'rules') NOT NULL,
       MODIFY action ENUM('added', 'filled', 'replaced', 'moved', 'cleared') NOT NULL,
       ADD source_lineage ${id} NULL,
       ADD parts SET('title', 'text', 'settings', 'points', 'category', 'dates', 'place', 'state') NULL,
       ADD kind ${word} NULL,
       ADD state ENUM('visible', 'hidden', 'listed', 'deleted') NULL,
       ADD points DECIMAL(12,4) NULL,
       ADD category_lineage ${id} NULL,
       ADD rubric_lineage ${id} NULL,
       ADD group_lineage ${id} NULL,
       ADD body_hash ${hash} NULL,
       ADD exempt BOOLEAN NULL,
       ADD extra BOOLEAN NULL,
       ADD details JSON NULL`,
  )
  await db.raw(`UPDATE run_entries SET source_lineage = lineage WHERE entity <> 'course'`)
  await db.raw(ofRuns('items', 'item'))
  await db.raw(ofRuns('units', 'unit'))
  await db.raw(carriedItems)
  await db.raw(carriedUnits)
  await fillLinks(db)
}

const tables = [
  `CREATE TABLE grade_rules (
    course_id ${id} PRIMARY KEY,
    reckoned_by ENUM('weights', 'points') NOT NULL,
    ungraded ENUM('skip', 'zero') NOT NULL,
    decimals INT NOT NULL,
    scale JSON NOT NULL,
    FOREIGN KEY (course_id) REFERENCES courses (id)
  )`,
  `CREATE TABLE rubrics (
    course_id ${id} NOT NULL,
    lineage ${id} NOT NULL,
    identifier ${key} NULL,
    position INT NOT NULL,
    title ${title} NOT NULL,
    criteria JSON NOT NULL,
    PRIMARY KEY (course_id, lineage),
    FOREIGN KEY (course_id) REFERENCES courses (id)
  )`,
  // A group by its name alone: who is in it is student data.
  `CREATE TABLE work_groups (
    course_id ${id} NOT NULL,
    lineage ${id} NOT NULL,
    identifier ${key} NULL,
    position INT NOT NULL,
    title ${title} NOT NULL,
    PRIMARY KEY (course_id, lineage),
    FOREIGN KEY (course_id) REFERENCES courses (id)
  )`,
  `CREATE TABLE furnishings (
    course_id ${id} NOT NULL,
    lineage ${id} NOT NULL,
    part ${word} NOT NULL,
    position INT NOT NULL,
    title ${title} NOT NULL,
    item_lineage ${id} NULL,
    details JSON NOT NULL,
    PRIMARY KEY (course_id, lineage),
    FOREIGN KEY (course_id) REFERENCES courses (id)
  )`,
  // What a body links to within its course, by lineage.
  `CREATE TABLE body_links (
    hash ${hash} NOT NULL,
    lineage ${id} NOT NULL,
    PRIMARY KEY (hash, lineage)
  )`,
  // How each thing of a source stood to the shell after the last run; of a template's things, how they came (docs/places.md).
  `CREATE TABLE carried (
    course_id ${id} NOT NULL,
    origin ENUM('run', 'template') NOT NULL,
    source_lineage ${id} NOT NULL,
    lineage ${id} NOT NULL,
    entity ENUM('unit', 'item', 'category', 'rules') NOT NULL,
    how ENUM('carried', 'kept', 'left', 'template') NOT NULL,
    parts JSON NOT NULL,
    run_id ${id} NULL,
    PRIMARY KEY (course_id, origin, source_lineage),
    INDEX (course_id, lineage),
    FOREIGN KEY (course_id) REFERENCES courses (id),
    FOREIGN KEY (run_id) REFERENCES runs (id)
  )`,
]

const lineageLinks = /northtide:([0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12})/g
/** What the bodies that are there link to, from what was made of them to be read. */
async function fillLinks(db: Knex): Promise<void> {
  const hashes: string[] = await db('readable_bodies').pluck('hash')
  for (const hash of hashes) {
    const row: { value: unknown } | undefined = await db('readable_bodies').where({ hash }).first('value')
    const text = typeof row?.value === 'string' ? row.value : JSON.stringify(row?.value ?? '')
    const found = new Set([...text.matchAll(lineageLinks)].flatMap(match => match[1] ?? []))
    if (found.size > 0)
      await db('body_links')
        .insert([...found].map(lineage => ({ hash, lineage })))
        .onConflict()
        .ignore()
  }
}
const ofRuns = (table: string, entity: string): string =>
  `UPDATE ${table} t JOIN runs r ON r.target_course_id = t.course_id AND r.snapshot_id IS NULL
   JOIN run_entries e ON e.run_id = r.id AND e.entity = '${entity}' AND e.action = 'added' AND e.lineage = t.lineage
   SET t.made_by = 'run'`
/** What runs of before this wrote, as core/carry/again.ts tells the parts of a thing. */
const carriedFrom = (table: string, entity: string, parts: string): string =>
  `INSERT IGNORE INTO carried (course_id, origin, source_lineage, lineage, entity, how, parts, run_id)
   SELECT r.target_course_id, 'run', e.lineage, e.lineage, '${entity}', 'carried', JSON_OBJECT(
     'title', s.title, ${parts}, 'place', IFNULL(e.parent_lineage, ''), 'state', s.state), r.id
   FROM runs r JOIN run_entries e ON e.run_id = r.id AND e.entity = '${entity}' AND e.action = 'added'
   JOIN ${table} s ON s.course_id = IFNULL(e.source_course_id, r.source_course_id) AND s.lineage = e.lineage
   WHERE r.snapshot_id IS NULL ORDER BY r.finished_at DESC`
const carriedItems = carriedFrom(
  'items',
  'item',
  `'text', IFNULL(s.body_hash, ''),
   'settings', CONCAT('["', s.kind, '",', IF(s.settings = '{}', 'null', CONCAT('"', SHA2(s.settings, 256), '"')),
     ',null,null,[],false,false,', IF(s.exam, 'true', 'false'), ']'),
   'points', IFNULL(CAST(CAST(s.points * 10000 AS SIGNED) AS CHAR), ''),
   'category', IFNULL(s.category_lineage, ''),
   'dates', CONCAT(IFNULL(e.opens, ''), ' ', IFNULL(e.due, ''), ' ', IFNULL(e.closes, ''))`,
)
const carriedUnits = carriedFrom(
  'units',
  'unit',
  `'text', NULL, 'settings', NULL, 'points', NULL, 'category', NULL, 'dates', NULL`,
)
