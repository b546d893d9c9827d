import { deflateRawSync } from 'node:zlib'
import type { Knex } from 'knex'
import { id, instant, tableOptions, word } from './columns'

/**
 * A run keeps what it did as one document, and can be undone: how its shell stood before is kept as a copy of its rows. What the next
 * run compares with is one document of the course too. A job says which step it is at.
 */
export async function runsInFull(db: Knex): Promise<void> {
  await db.raw(`ALTER TABLE jobs ADD step ${word} NULL`)
  // Who runs into a shell is told by the jobs.
  await db.raw('DROP TABLE writing')
  await db.raw(
    `CREATE TABLE carried_bases (
      course_id ${id} PRIMARY KEY,
      bases LONGBLOB NOT NULL,
      FOREIGN KEY (course_id) REFERENCES courses (id)
    ) ${tableOptions}`,
  )
  await keepBases(db)
  await db.raw('DROP TABLE carried')
  // How a course stood: its rows as a copy of their own (none where it held nothing), and what is said of the course itself.
  await db.raw(
    `CREATE TABLE kept_states (
      id ${id} PRIMARY KEY,
      course_id ${id} NOT NULL,
      copy_id ${id} NULL,
      facts JSON NOT NULL,
      kept_at ${instant} NOT NULL,
      INDEX (course_id),
      FOREIGN KEY (course_id) REFERENCES courses (id),
      FOREIGN KEY (copy_id) REFERENCES courses (id)
    ) ${tableOptions}`,
  )
  await db.raw(
    `ALTER TABLE runs
       ADD entries LONGBLOB NULL,
       ADD facts JSON NOT NULL DEFAULT '{}',
       ADD before_id ${id} NULL,
       ADD undone_at ${instant} NULL,
       ADD CONSTRAINT runs_before FOREIGN KEY (before_id) REFERENCES kept_states (id)`,
  )
  await db.raw(
    `CREATE TABLE undos (
      id ${id} PRIMARY KEY,
      run_id ${id} NOT NULL,
      person_id ${id} NOT NULL,
      kind ENUM('undo', 'redo') NOT NULL,
      at ${instant} NOT NULL,
      before_id ${id} NULL,
      clearing_id ${id} NULL,
      told JSON NOT NULL,
      INDEX (run_id, id),
      FOREIGN KEY (run_id) REFERENCES runs (id),
      FOREIGN KEY (person_id) REFERENCES people (id),
      FOREIGN KEY (before_id) REFERENCES kept_states (id),
      FOREIGN KEY (clearing_id) REFERENCES clearings (id)
    ) ${tableOptions}`,
  )
  await keepEntries(db)
  await db.raw('DROP TABLE run_entries')
}

/** What a course compares with, course by course: documents from now on. */
async function keepBases(db: Knex): Promise<void> {
  for (const course of await db('carried' as 'items')
    .distinct()
    .pluck('course_id')) {
    const rows = (await db('carried' as 'items')
      .where({ course_id: course })
      .orderByRaw('origin, source_lineage')) as unknown as Record<string, string | null>[]
    const bases = rows.map(row => ({
      source: row.source_lineage,
      lineage: row.lineage,
      type: row.entity,
      how: row.how,
      parts: parsed(row.parts),
      wrote: row.wrote,
      ...(row.wrote_settings && { wroteSettings: row.wrote_settings }),
    }))
    await db('carried_bases').insert({ course_id: course, bases: deflated(bases) })
  }
}
/** As the application keeps documents at the time of this migration. */
const deflated = (value: unknown): never => deflateRawSync(JSON.stringify(value), { level: 1 }) as never

interface EntryRow {
  run_id: string
  entity: string
  lineage: string
  action: string
  title: string | null
  was: string | null
  kind: string | null
  opens: string | null
  due: string | null
  closes: string | null
  reasons: string | null
  former: string | null
}
const parsed = (value: unknown): Record<string, unknown> =>
  (typeof value === 'string' ? JSON.parse(value) : (value ?? {})) as Record<string, unknown>
/** What runs of before did, in the words that the record has from now on; what they did not keep is not made up. */
async function keepEntries(db: Knex): Promise<void> {
  const runs = await db('runs').pluck('id')
  for (const run of runs) {
    const [rows] = (await db.raw(
      `SELECT e.*, JSON_VALUE(e.former, '$.title') AS was,
         COALESCE(JSON_VALUE(e.details, '$.title'), CONVERT(e.title USING utf8mb4), CONVERT(i.title USING utf8mb4),
           CONVERT(u.title USING utf8mb4), CONVERT(c.title USING utf8mb4), JSON_VALUE(e.former, '$.title')) AS title,
         COALESCE(CONVERT(i.kind USING utf8mb4), CONVERT(e.kind USING utf8mb4), JSON_VALUE(e.former, '$.kind')) AS kind
       FROM run_entries e JOIN runs r ON r.id = e.run_id
       LEFT JOIN items i ON i.course_id = COALESCE(e.source_course_id, r.source_course_id) AND i.lineage = e.source_lineage
       LEFT JOIN units u ON u.course_id = COALESCE(e.source_course_id, r.source_course_id) AND u.lineage = e.source_lineage
       LEFT JOIN grade_categories c ON c.course_id = COALESCE(e.source_course_id, r.source_course_id) AND c.lineage = e.source_lineage
       WHERE e.run_id = :run ORDER BY FIELD(e.entity, 'unit', 'item'), e.position`,
      { run },
    )) as [EntryRow[]]
    const entries = rows.filter(row => row.entity !== 'course').map(entryFrom)
    const facts = Object.fromEntries(
      rows.filter(row => row.entity === 'course').map(row => [row.lineage, parsed(row.former)]),
    )
    await db('runs')
      .where({ id: run })
      .update({ entries: deflated({ whys: [], entries, left: [] }), facts: JSON.stringify(facts) as never })
  }
}
const entryFrom = (row: EntryRow) => ({
  entity: row.entity,
  lineage: row.lineage,
  action: row.action,
  title: row.title ?? '',
  was: row.was,
  kind: row.kind,
  depth: row.entity === 'item' ? 1 : 0,
  opens: row.opens,
  due: row.due,
  closes: row.closes,
  flags: (parsed(row.reasons).flags as string[] | undefined) ?? [],
  why: [],
  category: null,
  rubric: null,
  from: null,
  isMade: false,
  text: null,
})
