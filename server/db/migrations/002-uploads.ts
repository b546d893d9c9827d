import type { Knex } from 'knex'

const bin = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'
const text = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci'
const title = `VARCHAR(500) ${text}`

/** Work off the request path, and files that lie aside until their person has decided. */
const statements = [
  // A job is claimed with a token for as long as its lease runs; whoever holds another token may write nothing of it.
  `CREATE TABLE jobs (id UUID PRIMARY KEY, kind VARCHAR(40) ${bin} NOT NULL, subject UUID NOT NULL, person_id UUID NOT NULL, payload JSON NOT NULL,
    state ENUM('waiting','running','done','failed','cancelled') NOT NULL, done BIGINT UNSIGNED NOT NULL DEFAULT 0, total BIGINT UNSIGNED NOT NULL DEFAULT 0,
    problem TEXT ${text} NULL, token UUID NULL, lease_until DATETIME(3) NULL, attempts INT NOT NULL DEFAULT 0, created_at DATETIME(3) NOT NULL, finished_at DATETIME(3) NULL,
    INDEX (state, lease_until), INDEX (subject), FOREIGN KEY (person_id) REFERENCES people (id)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci`,
  `CREATE TABLE uploads (id UUID PRIMARY KEY, person_id UUID NOT NULL, name ${title} NOT NULL, size BIGINT UNSIGNED NOT NULL DEFAULT 0, hash CHAR(64) ${bin} NULL, found ENUM('read','refused') NULL, report LONGTEXT ${bin} NULL,
    outcome JSON NULL, arrived_at DATETIME(3) NOT NULL, INDEX (person_id), INDEX (arrived_at), FOREIGN KEY (person_id) REFERENCES people (id)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci`,
  `CREATE TABLE upload_parts (upload_id UUID NOT NULL, part INT NOT NULL, bytes MEDIUMBLOB NOT NULL, PRIMARY KEY (upload_id, part), FOREIGN KEY (upload_id) REFERENCES uploads (id) ON DELETE CASCADE)
    ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci`,
  // The package a course was read from, as it came.
  `ALTER TABLE courses ADD COLUMN package_hash CHAR(64) ${bin} NULL, ADD COLUMN package_name ${title} NULL, ADD COLUMN language VARCHAR(40) ${bin} NULL,
    ADD FOREIGN KEY (package_hash) REFERENCES bodies (hash)`,
]

export async function up(db: Knex): Promise<void> {
  for (const statement of statements) await db.raw(statement)
}
