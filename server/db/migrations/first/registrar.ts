import { id, instant, key, longText, title, word } from '../columns'

/** What the registrar said and when, shells that somebody misses, mail, and what the academic office lays down for all. */
export const registrar = [
  // "period" is the stretch of time that a fetch by schedule stands for: several servers ask, one fetches.
  `CREATE TABLE fetches (
    id ${id} PRIMARY KEY,
    period BIGINT NULL UNIQUE,
    person_id ${id} NULL,
    started_at ${instant} NOT NULL,
    finished_at ${instant} NULL,
    state ENUM('waiting', 'new', 'same', 'failed') NOT NULL,
    etag ${key} NULL,
    problem ${longText} NULL,
    counts JSON NOT NULL,
    findings JSON NOT NULL,
    INDEX (started_at),
    FOREIGN KEY (person_id) REFERENCES people (id)
  )`,
  `CREATE TABLE roster_changes (
    id ${id} PRIMARY KEY,
    fetch_id ${id} NOT NULL,
    at ${instant} NOT NULL,
    course_id ${id} NOT NULL,
    kind ${word} NOT NULL,
    count INT NOT NULL,
    detail JSON NOT NULL,
    INDEX (course_id, at),
    INDEX (at),
    FOREIGN KEY (fetch_id) REFERENCES fetches (id),
    FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
  )`,
  `CREATE TABLE mails (
    id ${id} PRIMARY KEY,
    recipient ${key} NOT NULL,
    reply_to ${key} NULL,
    subject ${title} NOT NULL,
    body ${longText} NOT NULL,
    state ENUM('waiting', 'sent', 'failed') NOT NULL,
    attempts INT NOT NULL DEFAULT 0,
    problem ${longText} NULL,
    created_at ${instant} NOT NULL,
    sent_at ${instant} NULL
  )`,
  // A shell that somebody misses, at the desk that can help.
  `CREATE TABLE requests (
    id ${id} PRIMARY KEY,
    person_id ${id} NOT NULL,
    desk ENUM('registrar', 'school', 'help') NOT NULL,
    reason ${word} NOT NULL,
    term_id ${id} NOT NULL,
    code ${key} NOT NULL,
    section ${key} NOT NULL,
    words ${longText} NOT NULL,
    state ENUM('open', 'arrived', 'answered', 'closed') NOT NULL,
    answer ${longText} NULL,
    course_id ${id} NULL,
    mail_id ${id} NULL,
    created_at ${instant} NOT NULL,
    updated_at ${instant} NOT NULL,
    INDEX (person_id),
    INDEX (state),
    FOREIGN KEY (person_id) REFERENCES people (id),
    FOREIGN KEY (term_id) REFERENCES terms (id),
    FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE SET NULL,
    FOREIGN KEY (mail_id) REFERENCES mails (id)
  )`,
  // A document each, with the revision it was read at.
  `CREATE TABLE office_rules (
    name ${word} PRIMARY KEY,
    revision INT NOT NULL,
    value JSON NOT NULL,
    person_id ${id} NOT NULL,
    updated_at ${instant} NOT NULL,
    FOREIGN KEY (person_id) REFERENCES people (id)
  )`,
]
