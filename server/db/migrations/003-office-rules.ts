import type { Knex } from 'knex'

const bin = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'

/** What the academic office lays down for all, a document each, with the revision it was read at. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`CREATE TABLE office_rules (name VARCHAR(40) ${bin} PRIMARY KEY, revision INT NOT NULL, value JSON NOT NULL, person_id UUID NOT NULL, updated_at DATETIME(3) NOT NULL,
    FOREIGN KEY (person_id) REFERENCES people (id)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci`)
}
