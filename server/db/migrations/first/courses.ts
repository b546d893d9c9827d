import { civilDate, clockTime, decimal, hash, id, instant, key, title, wallTime, word } from '../columns'

/**
 * Courses and what they hold. Identity of content is (course, lineage), so that a rollover is an INSERT … SELECT without
 * an id map; bodies are shared by hash.
 */
export const courses = [
  `CREATE TABLE terms (
    id ${id} PRIMARY KEY,
    code ${key} NOT NULL UNIQUE,
    name ${title} NOT NULL,
    time_zone ${key} NOT NULL,
    classes_from ${civilDate} NOT NULL,
    classes_to ${civilDate} NOT NULL,
    calendar JSON NOT NULL
  )`,
  `CREATE TABLE bodies (
    hash ${hash} PRIMARY KEY,
    size BIGINT UNSIGNED NOT NULL,
    created_at ${instant} NOT NULL
  )`,
  `CREATE TABLE body_parts (
    hash ${hash} NOT NULL,
    part INT NOT NULL,
    bytes MEDIUMBLOB NOT NULL,
    PRIMARY KEY (hash, part),
    FOREIGN KEY (hash) REFERENCES bodies (hash)
  )`,
  // A course is the registrar's, made by hand, awaited (a plan's place until its shell comes), a template, or a snapshot.
  // "title" is the registrar's; "shown_title", where there is one, is what students see.
  `CREATE TABLE courses (
    id ${id} PRIMARY KEY,
    source_id ${key} NOT NULL UNIQUE,
    term_id ${id} NOT NULL,
    org_id ${id} NOT NULL,
    code ${key} NOT NULL,
    section ${key} NOT NULL,
    title ${title} NOT NULL,
    shown_title ${title} NULL,
    label ${title} NULL,
    origin ENUM('registrar', 'hand', 'awaited', 'template', 'snapshot') NOT NULL DEFAULT 'registrar',
    language ${word} NULL,
    enrol_from ${civilDate} NULL,
    enrol_to ${civilDate} NULL,
    open_from ${civilDate} NULL,
    open_to ${civilDate} NULL,
    package_hash ${hash} NULL,
    package_name ${title} NULL,
    missing_since ${instant} NULL,
    created_at ${instant} NOT NULL,
    INDEX (code), INDEX (term_id), INDEX (origin),
    FOREIGN KEY (term_id) REFERENCES terms (id),
    FOREIGN KEY (org_id) REFERENCES orgs (id),
    FOREIGN KEY (package_hash) REFERENCES bodies (hash)
  )`,
  `CREATE TABLE meetings (
    course_id ${id} NOT NULL,
    position INT NOT NULL,
    weekday TINYINT NOT NULL,
    start ${clockTime} NOT NULL,
    \`end\` ${clockTime} NOT NULL,
    room ${title} NULL,
    PRIMARY KEY (course_id, position),
    FOREIGN KEY (course_id) REFERENCES courses (id)
  )`,
  // Who has dropped is kept: what hangs off an enrolment is never lost with a row of the registrar's.
  `CREATE TABLE enrolments (
    id ${id} PRIMARY KEY,
    course_id ${id} NOT NULL,
    person_id ${id} NOT NULL,
    role ENUM('instructor', 'assistant', 'student') NOT NULL,
    is_primary BOOLEAN NOT NULL DEFAULT FALSE,
    may_run BOOLEAN NOT NULL DEFAULT FALSE,
    origin ENUM('registrar', 'hand') NOT NULL,
    source_id ${key} NULL,
    dropped_at ${instant} NULL,
    missing_since ${instant} NULL,
    UNIQUE (course_id, person_id, role),
    INDEX (person_id),
    INDEX staff (role, course_id, person_id, dropped_at, is_primary),
    FOREIGN KEY (course_id) REFERENCES courses (id),
    FOREIGN KEY (person_id) REFERENCES people (id)
  )`,
  `CREATE TABLE grade_categories (
    course_id ${id} NOT NULL,
    lineage ${id} NOT NULL,
    title ${title} NOT NULL,
    weight ${decimal} NULL,
    position INT NOT NULL,
    PRIMARY KEY (course_id, lineage),
    FOREIGN KEY (course_id) REFERENCES courses (id)
  )`,
  `CREATE TABLE units (
    course_id ${id} NOT NULL,
    lineage ${id} NOT NULL,
    parent_lineage ${id} NULL,
    position INT NOT NULL,
    title ${title} NOT NULL,
    state ENUM('visible', 'hidden', 'listed', 'deleted') NOT NULL,
    PRIMARY KEY (course_id, lineage),
    FOREIGN KEY (course_id) REFERENCES courses (id)
  )`,
  `CREATE TABLE items (
    course_id ${id} NOT NULL,
    lineage ${id} NOT NULL,
    parent_lineage ${id} NULL,
    position INT NOT NULL,
    kind ${word} NOT NULL,
    title ${title} NOT NULL,
    state ENUM('visible', 'hidden', 'listed', 'deleted') NOT NULL,
    exam BOOLEAN NOT NULL DEFAULT FALSE,
    points ${decimal} NULL,
    category_lineage ${id} NULL,
    opens ${wallTime} NULL,
    due ${wallTime} NULL,
    closes ${wallTime} NULL,
    body_hash ${hash} NULL,
    media_type ${key} NULL,
    settings JSON NOT NULL,
    PRIMARY KEY (course_id, lineage),
    FOREIGN KEY (course_id) REFERENCES courses (id),
    FOREIGN KEY (body_hash) REFERENCES bodies (hash)
  )`,
  // What a person keeps of a course for themselves alone.
  `CREATE TABLE course_preferences (
    person_id ${id} NOT NULL,
    course_id ${id} NOT NULL,
    pinned BOOLEAN NOT NULL DEFAULT FALSE,
    hidden BOOLEAN NOT NULL DEFAULT FALSE,
    label ${title} NULL,
    PRIMARY KEY (person_id, course_id),
    FOREIGN KEY (person_id) REFERENCES people (id),
    FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
  )`,
]
