import { civilDate, decimal, hash, id, instant, key, longText, title, wallTime } from '../columns'

/** Student data hangs off enrolments. Content is named by lineage only: nothing here is touched when content is carried. */
export const studentData = [
  `CREATE TABLE submissions (
    id ${id} PRIMARY KEY,
    enrolment_id ${id} NOT NULL,
    item_lineage ${id} NOT NULL,
    submitted_at ${instant} NOT NULL,
    body_hash ${hash} NULL,
    INDEX (enrolment_id),
    FOREIGN KEY (enrolment_id) REFERENCES enrolments (id),
    FOREIGN KEY (body_hash) REFERENCES bodies (hash)
  )`,
  `CREATE TABLE grades (
    enrolment_id ${id} NOT NULL,
    item_lineage ${id} NOT NULL,
    score ${decimal} NULL,
    status ${key} NOT NULL,
    graded_on ${civilDate} NULL,
    comment ${longText} NULL,
    PRIMARY KEY (enrolment_id, item_lineage),
    FOREIGN KEY (enrolment_id) REFERENCES enrolments (id)
  )`,
  `CREATE TABLE attempts (
    id ${id} PRIMARY KEY,
    enrolment_id ${id} NOT NULL,
    item_lineage ${id} NOT NULL,
    number INT NOT NULL,
    started_at ${instant} NOT NULL,
    finished_at ${instant} NULL,
    score ${decimal} NULL,
    INDEX (enrolment_id),
    FOREIGN KEY (enrolment_id) REFERENCES enrolments (id)
  )`,
  `CREATE TABLE posts (
    id ${id} PRIMARY KEY,
    enrolment_id ${id} NOT NULL,
    item_lineage ${id} NOT NULL,
    posted_at ${instant} NOT NULL,
    body_hash ${hash} NULL,
    INDEX (enrolment_id),
    FOREIGN KEY (enrolment_id) REFERENCES enrolments (id),
    FOREIGN KEY (body_hash) REFERENCES bodies (hash)
  )`,
  `CREATE TABLE extensions (
    enrolment_id ${id} NOT NULL,
    item_lineage ${id} NOT NULL,
    due ${wallTime} NOT NULL,
    reason ${title} NOT NULL,
    PRIMARY KEY (enrolment_id, item_lineage),
    FOREIGN KEY (enrolment_id) REFERENCES enrolments (id)
  )`,
]
