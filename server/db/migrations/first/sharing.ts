import { id, instant, longText, title } from '../columns'

/** Content that others may roll from: templates, and shares by code or with a department. */
export const sharing = [
  `CREATE TABLE templates (
    course_id ${id} PRIMARY KEY,
    subject ${title} NOT NULL,
    arrangement ENUM('weeks', 'units') NOT NULL,
    about ${longText} NOT NULL,
    person_id ${id} NOT NULL,
    created_at ${instant} NOT NULL,
    FOREIGN KEY (course_id) REFERENCES courses (id),
    FOREIGN KEY (person_id) REFERENCES people (id)
  )`,
  // "withheld": kinds of items that the others do not get.
  `CREATE TABLE shares (
    id ${id} PRIMARY KEY,
    course_id ${id} NOT NULL,
    person_id ${id} NOT NULL,
    code CHAR(9) CHARACTER SET ascii COLLATE ascii_bin NULL UNIQUE,
    org_id ${id} NULL,
    withheld JSON NOT NULL,
    created_at ${instant} NOT NULL,
    expires_at ${instant} NULL,
    revoked_at ${instant} NULL,
    INDEX (course_id),
    INDEX (org_id),
    FOREIGN KEY (course_id) REFERENCES courses (id),
    FOREIGN KEY (person_id) REFERENCES people (id),
    FOREIGN KEY (org_id) REFERENCES orgs (id)
  )`,
  `CREATE TABLE share_uses (
    share_id ${id} NOT NULL,
    person_id ${id} NOT NULL,
    at ${instant} NOT NULL,
    PRIMARY KEY (share_id, person_id),
    INDEX (person_id),
    FOREIGN KEY (share_id) REFERENCES shares (id),
    FOREIGN KEY (person_id) REFERENCES people (id)
  )`,
]
