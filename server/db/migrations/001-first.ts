import type { Knex } from 'knex'

const bin = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'
const text = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci'
const key = `VARCHAR(190) ${bin}`
const title = `VARCHAR(500) ${text}`

/**
 * The first schema. Identity of content is (course, lineage), so that a rollover is an INSERT … SELECT without an id map;
 * bodies are shared by hash; everything about students hangs off an enrolment.
 */
const statements = [
  `CREATE TABLE orgs (id UUID PRIMARY KEY, source_id ${key} NOT NULL UNIQUE, name ${title} NOT NULL, type ${key} NOT NULL, parent_source_id ${key} NULL)`,

  `CREATE TABLE people (id UUID PRIMARY KEY, source_id ${key} NOT NULL UNIQUE, login ${key} NULL UNIQUE, given_name ${title} NOT NULL,
    family_name ${title} NOT NULL, email ${key} NULL, password ${key} NULL, active BOOLEAN NOT NULL DEFAULT TRUE)`,
  // Instructors and assistants are so by enrolment; these two are so for an organisation.
  `CREATE TABLE duties (person_id UUID NOT NULL, org_id UUID NOT NULL, duty ENUM('coordinator','office') NOT NULL, PRIMARY KEY (person_id, org_id, duty),
    FOREIGN KEY (person_id) REFERENCES people (id), FOREIGN KEY (org_id) REFERENCES orgs (id))`,

  `CREATE TABLE terms (id UUID PRIMARY KEY, code ${key} NOT NULL UNIQUE, name ${title} NOT NULL, time_zone ${key} NOT NULL,
    classes_from CHAR(10) ${bin} NOT NULL, classes_to CHAR(10) ${bin} NOT NULL, calendar JSON NOT NULL)`,
  `CREATE TABLE courses (id UUID PRIMARY KEY, source_id ${key} NOT NULL UNIQUE, term_id UUID NOT NULL, org_id UUID NOT NULL, code ${key} NOT NULL,
    section ${key} NOT NULL, title ${title} NOT NULL, created_at DATETIME(3) NOT NULL, INDEX (code), INDEX (term_id),
    FOREIGN KEY (term_id) REFERENCES terms (id), FOREIGN KEY (org_id) REFERENCES orgs (id))`,
  `CREATE TABLE meetings (course_id UUID NOT NULL, position INT NOT NULL, weekday TINYINT NOT NULL, start CHAR(5) ${bin} NOT NULL, \`end\` CHAR(5) ${bin} NOT NULL,
    room ${title} NULL, PRIMARY KEY (course_id, position), FOREIGN KEY (course_id) REFERENCES courses (id))`,
  `CREATE TABLE enrolments (id UUID PRIMARY KEY, course_id UUID NOT NULL, person_id UUID NOT NULL, role ENUM('instructor','assistant','student') NOT NULL,
    is_primary BOOLEAN NOT NULL DEFAULT FALSE, may_run BOOLEAN NOT NULL DEFAULT FALSE, origin ENUM('registrar','hand') NOT NULL, source_id ${key} NULL,
    UNIQUE (course_id, person_id, role), INDEX (person_id), FOREIGN KEY (course_id) REFERENCES courses (id), FOREIGN KEY (person_id) REFERENCES people (id))`,

  `CREATE TABLE bodies (hash CHAR(64) ${bin} PRIMARY KEY, size BIGINT UNSIGNED NOT NULL, created_at DATETIME(3) NOT NULL)`,
  `CREATE TABLE body_parts (hash CHAR(64) ${bin} NOT NULL, part INT NOT NULL, bytes MEDIUMBLOB NOT NULL, PRIMARY KEY (hash, part), FOREIGN KEY (hash) REFERENCES bodies (hash))`,

  `CREATE TABLE grade_categories (course_id UUID NOT NULL, lineage UUID NOT NULL, title ${title} NOT NULL, weight DECIMAL(12,4) NULL, position INT NOT NULL,
    PRIMARY KEY (course_id, lineage), FOREIGN KEY (course_id) REFERENCES courses (id))`,
  `CREATE TABLE units (course_id UUID NOT NULL, lineage UUID NOT NULL, parent_lineage UUID NULL, position INT NOT NULL, title ${title} NOT NULL,
    state ENUM('visible','hidden','listed','deleted') NOT NULL, PRIMARY KEY (course_id, lineage), FOREIGN KEY (course_id) REFERENCES courses (id))`,
  `CREATE TABLE items (course_id UUID NOT NULL, lineage UUID NOT NULL, parent_lineage UUID NULL, position INT NOT NULL, kind ${key} NOT NULL, title ${title} NOT NULL,
    state ENUM('visible','hidden','listed','deleted') NOT NULL, exam BOOLEAN NOT NULL DEFAULT FALSE, points DECIMAL(12,4) NULL, category_lineage UUID NULL,
    body_hash CHAR(64) ${bin} NULL, media_type ${key} NULL, settings JSON NOT NULL, PRIMARY KEY (course_id, lineage),
    FOREIGN KEY (course_id) REFERENCES courses (id), FOREIGN KEY (body_hash) REFERENCES bodies (hash))`,
  `CREATE TABLE slots (course_id UUID NOT NULL, lineage UUID NOT NULL, slot ENUM('opens','due','closes') NOT NULL, at CHAR(16) ${bin} NOT NULL,
    PRIMARY KEY (course_id, lineage, slot), FOREIGN KEY (course_id, lineage) REFERENCES items (course_id, lineage) ON DELETE CASCADE)`,

  // Student data. Content is named by lineage only: nothing here is touched when content is carried.
  `CREATE TABLE submissions (id UUID PRIMARY KEY, enrolment_id UUID NOT NULL, item_lineage UUID NOT NULL, submitted_at DATETIME(3) NOT NULL, body_hash CHAR(64) ${bin} NULL,
    INDEX (enrolment_id), FOREIGN KEY (enrolment_id) REFERENCES enrolments (id), FOREIGN KEY (body_hash) REFERENCES bodies (hash))`,
  `CREATE TABLE grades (enrolment_id UUID NOT NULL, item_lineage UUID NOT NULL, score DECIMAL(12,4) NULL, status ${key} NOT NULL, graded_on CHAR(10) ${bin} NULL, comment TEXT NULL,
    PRIMARY KEY (enrolment_id, item_lineage), FOREIGN KEY (enrolment_id) REFERENCES enrolments (id))`,
  `CREATE TABLE attempts (id UUID PRIMARY KEY, enrolment_id UUID NOT NULL, item_lineage UUID NOT NULL, number INT NOT NULL, started_at DATETIME(3) NOT NULL,
    finished_at DATETIME(3) NULL, score DECIMAL(12,4) NULL, INDEX (enrolment_id), FOREIGN KEY (enrolment_id) REFERENCES enrolments (id))`,
  `CREATE TABLE posts (id UUID PRIMARY KEY, enrolment_id UUID NOT NULL, item_lineage UUID NOT NULL, posted_at DATETIME(3) NOT NULL, body_hash CHAR(64) ${bin} NOT NULL,
    INDEX (enrolment_id), FOREIGN KEY (enrolment_id) REFERENCES enrolments (id), FOREIGN KEY (body_hash) REFERENCES bodies (hash))`,
  `CREATE TABLE extensions (enrolment_id UUID NOT NULL, item_lineage UUID NOT NULL, due CHAR(16) ${bin} NOT NULL, reason ${title} NOT NULL,
    PRIMARY KEY (enrolment_id, item_lineage), FOREIGN KEY (enrolment_id) REFERENCES enrolments (id))`,

  `CREATE TABLE plans (id UUID PRIMARY KEY, source_course_id UUID NOT NULL, target_course_id UUID NOT NULL, owner_id UUID NOT NULL, document JSON NOT NULL,
    revision INT NOT NULL, state ENUM('draft','run') NOT NULL, created_at DATETIME(3) NOT NULL, updated_at DATETIME(3) NOT NULL, updated_by UUID NOT NULL,
    INDEX (target_course_id, state), FOREIGN KEY (source_course_id) REFERENCES courses (id), FOREIGN KEY (target_course_id) REFERENCES courses (id),
    FOREIGN KEY (owner_id) REFERENCES people (id), FOREIGN KEY (updated_by) REFERENCES people (id))`,
  `CREATE TABLE runs (id UUID PRIMARY KEY, plan_id UUID NOT NULL, source_course_id UUID NOT NULL, target_course_id UUID NOT NULL, person_id UUID NOT NULL, document JSON NOT NULL,
    effect JSON NOT NULL, audit JSON NOT NULL, started_at DATETIME(3) NOT NULL, finished_at DATETIME(3) NOT NULL, INDEX (target_course_id),
    FOREIGN KEY (plan_id) REFERENCES plans (id), FOREIGN KEY (source_course_id) REFERENCES courses (id), FOREIGN KEY (target_course_id) REFERENCES courses (id), FOREIGN KEY (person_id) REFERENCES people (id))`,
  // What a run did, one row a thing. It is written first: the content is then inserted from it, set by set.
  `CREATE TABLE run_entries (run_id UUID NOT NULL, entity ENUM('category','unit','item') NOT NULL, lineage UUID NOT NULL, action ENUM('added','replaced','cleared') NOT NULL,
    parent_lineage UUID NULL, position INT NOT NULL, opens CHAR(16) ${bin} NULL, due CHAR(16) ${bin} NULL, closes CHAR(16) ${bin} NULL, reasons JSON NULL, former JSON NULL,
    PRIMARY KEY (run_id, entity, lineage), FOREIGN KEY (run_id) REFERENCES runs (id))`,

  `CREATE TABLE log (id UUID PRIMARY KEY, at DATETIME(3) NOT NULL, person_id UUID NULL, action ${key} NOT NULL, course_id UUID NULL, plan_id UUID NULL, run_id UUID NULL,
    detail JSON NOT NULL, INDEX (at), INDEX (course_id))`,
]

export async function up(db: Knex): Promise<void> {
  for (const statement of statements)
    await db.raw(`${statement} ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci`)
}
