import type { Knex } from 'knex'
import { id, instant, tableOptions, title } from './columns'

/** Decisions that are remembered, of a person or of a department; and what a plan was begun with. */
export async function habits(db: Knex): Promise<void> {
  await db.raw(
    `CREATE TABLE habits (
      id ${id} PRIMARY KEY,
      person_id ${id} NULL,
      org_id ${id} NULL,
      name ${title} NOT NULL,
      document JSON NOT NULL,
      run_id ${id} NOT NULL,
      is_usual BOOLEAN NOT NULL,
      made_by ${id} NOT NULL,
      made_at ${instant} NOT NULL,
      INDEX (person_id),
      INDEX (org_id),
      FOREIGN KEY (person_id) REFERENCES people (id),
      FOREIGN KEY (org_id) REFERENCES orgs (id),
      FOREIGN KEY (run_id) REFERENCES runs (id),
      FOREIGN KEY (made_by) REFERENCES people (id),
      CONSTRAINT one_owner CHECK ((person_id IS NULL) <> (org_id IS NULL))
    ) ${tableOptions}`,
  )
  await db.raw('ALTER TABLE plans ADD begun_with JSON NULL')
}
