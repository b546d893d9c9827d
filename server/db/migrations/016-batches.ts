import type { Knex } from 'knex'
import { hash, id, instant, longText, tableOptions, title } from './columns'

/** Batches: pairs of courses that are tried and rolled with shared decisions; and jobs are taken in their order by an index. */
export async function batches(db: Knex): Promise<void> {
  await db.raw(
    `CREATE TABLE batches (
      id ${id} PRIMARY KEY,
      name ${title} NOT NULL,
      term_id ${id} NOT NULL,
      org_id ${id} NOT NULL,
      person_id ${id} NOT NULL,
      decisions JSON NOT NULL,
      state ENUM('trying', 'tried', 'running', 'stopped', 'done') NOT NULL,
      filled_before INT NOT NULL,
      origin ${title} NOT NULL,
      made_at ${instant} NOT NULL,
      run_by ${id} NULL,
      run_at ${instant} NULL,
      ended_at ${instant} NULL,
      INDEX (org_id),
      FOREIGN KEY (term_id) REFERENCES terms (id),
      FOREIGN KEY (org_id) REFERENCES orgs (id),
      FOREIGN KEY (person_id) REFERENCES people (id),
      FOREIGN KEY (run_by) REFERENCES people (id)
    ) ${tableOptions}`,
  )
  // What a line of a table said stays with the pair, so that it can be found there again.
  await db.raw(
    `CREATE TABLE batch_pairs (
      id ${id} PRIMARY KEY,
      batch_id ${id} NOT NULL,
      position INT NOT NULL,
      source_text ${title} NOT NULL,
      shell_text ${title} NOT NULL,
      source_id ${id} NULL,
      shell_id ${id} NULL,
      plan_id ${id} NULL,
      state ENUM('waiting', 'ready', 'look', 'exception', 'out', 'done', 'failed') NOT NULL,
      doubt ${longText} NULL,
      problem ${longText} NULL,
      effect JSON NULL,
      fingerprint ${hash} NULL,
      run_id ${id} NULL,
      ended_at ${instant} NULL,
      UNIQUE (batch_id, position),
      INDEX (plan_id),
      FOREIGN KEY (batch_id) REFERENCES batches (id),
      FOREIGN KEY (source_id) REFERENCES courses (id),
      FOREIGN KEY (shell_id) REFERENCES courses (id),
      FOREIGN KEY (run_id) REFERENCES runs (id)
    ) ${tableOptions}`,
  )
  await db.raw('ALTER TABLE jobs ADD INDEX (kind, state, created_at, id)')
}
