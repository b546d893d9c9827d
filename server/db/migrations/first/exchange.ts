import { hash, id, instant, longText, title, word } from '../columns'

/** Work off the request path, and files that lie aside until their person has decided. */
export const exchange = [
  // A job is claimed with a token for as long as its lease runs; whoever holds another token may write nothing of it.
  // A job of the application's own has no person; one that must wait has a time.
  `CREATE TABLE jobs (
    id ${id} PRIMARY KEY,
    kind ${word} NOT NULL,
    subject ${id} NOT NULL,
    person_id ${id} NULL,
    payload JSON NOT NULL,
    state ENUM('waiting', 'running', 'done', 'failed', 'cancelled') NOT NULL,
    done BIGINT UNSIGNED NOT NULL DEFAULT 0,
    total BIGINT UNSIGNED NOT NULL DEFAULT 0,
    problem ${longText} NULL,
    token ${id} NULL,
    lease_until ${instant} NULL,
    not_before ${instant} NULL,
    attempts INT NOT NULL DEFAULT 0,
    created_at ${instant} NOT NULL,
    finished_at ${instant} NULL,
    INDEX (state, lease_until),
    INDEX (subject),
    FOREIGN KEY (person_id) REFERENCES people (id)
  )`,
  // "report" is what was found in the file: JSON as text, since a name in a file may hold what the type JSON refuses.
  `CREATE TABLE uploads (
    id ${id} PRIMARY KEY,
    person_id ${id} NOT NULL,
    name ${title} NOT NULL,
    size BIGINT UNSIGNED NOT NULL DEFAULT 0,
    hash ${hash} NULL,
    found ENUM('read', 'refused') NULL,
    report LONGTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin NULL,
    outcome JSON NULL,
    arrived_at ${instant} NOT NULL,
    INDEX (person_id),
    INDEX (arrived_at),
    FOREIGN KEY (person_id) REFERENCES people (id)
  )`,
  `CREATE TABLE upload_parts (
    upload_id ${id} NOT NULL,
    part INT NOT NULL,
    bytes MEDIUMBLOB NOT NULL,
    PRIMARY KEY (upload_id, part),
    FOREIGN KEY (upload_id) REFERENCES uploads (id) ON DELETE CASCADE
  )`,
]
