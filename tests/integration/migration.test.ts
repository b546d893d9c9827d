import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Knex } from 'knex'
import { connect } from '../../server/db/connection'
import { migrations } from '../../server/db/migrations'
import { loadBases } from '../../server/courses/carried.queries'
import { runDetails } from '../../server/run-facts/runs.queries'
import { freshDatabase } from '../support/database'

let db: Knex
const id = (n: number): string => `01900000-0000-7000-8000-${String(n).padStart(12, '0')}`
const [run, course, shell, unit, item] = [id(1), id(2), id(3), id(4), id(5)]
beforeAll(async () => {
  db = connect(await freshDatabase('northtide_migration'))
  for (const [name, migrate] of Object.entries(migrations)) {
    if (name === '014-runs') break
    await migrate(db)
  }
})
afterAll(() => db.destroy())

describe('what was there before runs were kept as documents', () => {
  it('is read as it was: what a run did, what it changed of the shell, and what the next run compares with', async () => {
    await db.transaction(async trx => {
      // One connection throughout; nothing else of these courses matters here.
      await trx.raw('SET FOREIGN_KEY_CHECKS = 0')
      const at = '2027-01-05 20:00:00.000'
      await trx.raw(
        `INSERT INTO runs (id, plan_id, source_course_id, target_course_id, person_id, document, effect, audit, started_at, finished_at)
         VALUES (?, ?, ?, ?, ?, '{}', '{}', '[]', ?, ?)`,
        [run, id(9), course, shell, id(8), at, at],
      )
      await trx.raw(
        `INSERT INTO items (course_id, lineage, position, kind, title, state, exam, settings)
         VALUES (?, ?, 0, 'assignment', 'Lab sheet 1', 'visible', 0, '{}')`,
        [course, item],
      )
      const entry = `INSERT INTO run_entries (run_id, entity, lineage, source_course_id, source_lineage, action, position, due, reasons, former)
         VALUES (?, ?, ?, ?, ?, ?, 0, ?, ?, ?)`
      const flags = '{"flags":["closure-moved"],"reasons":[]}'
      await trx.raw(entry, [run, 'item', item, course, item, 'added', '2027-01-13T23:59', flags, null])
      await trx.raw(entry, [run, 'unit', unit, course, unit, 'cleared', null, null, '{"title":"Old unit"}'])
      const facts = '{"shown_title":{"before":"Tides","after":"Tides, again"}}'
      await trx.raw(entry, [run, 'course', shell, null, shell, 'replaced', null, null, facts])
      await trx.raw(
        `INSERT INTO carried (course_id, origin, source_lineage, lineage, entity, how, parts, wrote)
         VALUES (?, 'run', ?, ?, 'item', 'carried', '{"title":"Lab sheet 1","text":null}', 'abc')`,
        [shell, item, item],
      )
      await migrations['014-runs']?.(trx)
      await trx.raw('SET FOREIGN_KEY_CHECKS = 1')
    })
    const { entries, facts } = await runDetails(db, run)
    expect(entries.map(({ title, action, due, flags }) => [title, action, due, flags])).toEqual([
      ['Old unit', 'cleared', null, []],
      ['Lab sheet 1', 'added', '2027-01-13T23:59', ['closure-moved']],
    ])
    expect(facts[shell]).toEqual({ shown_title: { before: 'Tides', after: 'Tides, again' } })
    expect(await loadBases(db, shell)).toEqual([
      {
        source: item,
        lineage: item,
        type: 'item',
        how: 'carried',
        parts: { title: 'Lab sheet 1', text: null },
        wrote: 'abc',
      },
    ])
  })
})
