import type { Knex } from 'knex'

const bin = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'
const text = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci'
const title = `VARCHAR(500) ${text}`
const table = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci'

/** The right course into the right shell: what the registrar said and when, ways in, names and windows, who may and who is at it. */
const statements = [
  // A course is the registrar's, made by hand, awaited (a plan's place until its shell comes), a template, or a snapshot.
  `ALTER TABLE courses ADD COLUMN origin ENUM('registrar','hand','awaited','template','snapshot') NOT NULL DEFAULT 'registrar', ADD COLUMN label ${title} NULL, ADD COLUMN shown_title ${title} NULL,
    ADD COLUMN enrol_from CHAR(10) ${bin} NULL, ADD COLUMN enrol_to CHAR(10) ${bin} NULL, ADD COLUMN open_from CHAR(10) ${bin} NULL, ADD COLUMN open_to CHAR(10) ${bin} NULL,
    ADD COLUMN missing_since DATETIME(3) NULL, ADD INDEX (origin)`,
  `UPDATE courses SET origin = 'hand' WHERE source_id LIKE 'upload:%'`,
  // Who has dropped is kept: what hangs off an enrolment is never lost with a row of the registrar's.
  `ALTER TABLE enrolments ADD COLUMN dropped_at DATETIME(3) NULL, ADD COLUMN missing_since DATETIME(3) NULL, ADD INDEX staff (role, course_id, person_id, dropped_at, is_primary)`,
  `CREATE TABLE course_marks (person_id UUID NOT NULL, course_id UUID NOT NULL, pinned BOOLEAN NOT NULL DEFAULT FALSE, hidden BOOLEAN NOT NULL DEFAULT FALSE, label ${title} NULL,
    PRIMARY KEY (person_id, course_id), FOREIGN KEY (person_id) REFERENCES people (id), FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE) ${table}`,

  // A job of the application's own has no person; one that must wait has a time.
  `ALTER TABLE jobs MODIFY person_id UUID NULL, ADD COLUMN not_before DATETIME(3) NULL`,
  // "slot" is the stretch of time that a fetch by schedule stands for: several servers ask, one fetches.
  `CREATE TABLE fetches (id UUID PRIMARY KEY, slot BIGINT NULL UNIQUE, person_id UUID NULL, started_at DATETIME(3) NOT NULL, finished_at DATETIME(3) NULL, state ENUM('waiting','new','same','failed') NOT NULL,
    mark ${`VARCHAR(190) ${bin}`} NULL, problem TEXT ${text} NULL, counts JSON NOT NULL, findings JSON NOT NULL, INDEX (started_at), FOREIGN KEY (person_id) REFERENCES people (id)) ${table}`,
  `CREATE TABLE roster_changes (id UUID PRIMARY KEY, fetch_id UUID NOT NULL, at DATETIME(3) NOT NULL, course_id UUID NOT NULL, kind VARCHAR(40) ${bin} NOT NULL, count INT NOT NULL, detail JSON NOT NULL,
    INDEX (course_id, at), INDEX (at), FOREIGN KEY (fetch_id) REFERENCES fetches (id), FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE) ${table}`,

  `CREATE TABLE mails (id UUID PRIMARY KEY, recipient VARCHAR(190) ${bin} NOT NULL, reply_to VARCHAR(190) ${bin} NULL, subject ${title} NOT NULL, body TEXT ${text} NOT NULL, state ENUM('waiting','sent','failed') NOT NULL,
    attempts INT NOT NULL DEFAULT 0, problem TEXT ${text} NULL, created_at DATETIME(3) NOT NULL, sent_at DATETIME(3) NULL) ${table}`,
  // A shell that somebody misses, at the desk that can help.
  `CREATE TABLE requests (id UUID PRIMARY KEY, person_id UUID NOT NULL, desk ENUM('registrar','school','help') NOT NULL, reason VARCHAR(40) ${bin} NOT NULL, term_id UUID NOT NULL, code VARCHAR(190) ${bin} NOT NULL, section VARCHAR(190) ${bin} NOT NULL,
    words TEXT ${text} NOT NULL, state ENUM('open','arrived','answered','closed') NOT NULL, answer TEXT ${text} NULL, course_id UUID NULL, mail_id UUID NULL, created_at DATETIME(3) NOT NULL, updated_at DATETIME(3) NOT NULL, INDEX (person_id), INDEX (state),
    FOREIGN KEY (person_id) REFERENCES people (id), FOREIGN KEY (term_id) REFERENCES terms (id), FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE SET NULL, FOREIGN KEY (mail_id) REFERENCES mails (id)) ${table}`,

  `CREATE TABLE templates (course_id UUID PRIMARY KEY, subject ${title} NOT NULL, arrangement ENUM('weeks','units') NOT NULL, about TEXT ${text} NOT NULL, person_id UUID NOT NULL, created_at DATETIME(3) NOT NULL,
    FOREIGN KEY (course_id) REFERENCES courses (id), FOREIGN KEY (person_id) REFERENCES people (id)) ${table}`,
  // Content that others may take: whoever has the code, or a department. "leaves" are kinds that they may not.
  `CREATE TABLE shares (id UUID PRIMARY KEY, course_id UUID NOT NULL, person_id UUID NOT NULL, code CHAR(9) ${bin} NULL UNIQUE, org_id UUID NULL, leaves JSON NOT NULL, created_at DATETIME(3) NOT NULL, expires_at DATETIME(3) NULL, revoked_at DATETIME(3) NULL,
    INDEX (course_id), INDEX (org_id), FOREIGN KEY (course_id) REFERENCES courses (id), FOREIGN KEY (person_id) REFERENCES people (id), FOREIGN KEY (org_id) REFERENCES orgs (id)) ${table}`,
  `CREATE TABLE share_uses (share_id UUID NOT NULL, person_id UUID NOT NULL, at DATETIME(3) NOT NULL, PRIMARY KEY (share_id, person_id), INDEX (person_id), FOREIGN KEY (share_id) REFERENCES shares (id), FOREIGN KEY (person_id) REFERENCES people (id)) ${table}`,

  // Further sources after the plan's first, in their order. Whoever brought one in must still be allowed to take from it.
  `CREATE TABLE plan_sources (plan_id UUID NOT NULL, position INT NOT NULL, course_id UUID NOT NULL, PRIMARY KEY (plan_id, position), FOREIGN KEY (plan_id) REFERENCES plans (id) ON DELETE CASCADE, FOREIGN KEY (course_id) REFERENCES courses (id)) ${table}`,
  `ALTER TABLE plans ADD COLUMN mode ENUM('roll','in-place') NOT NULL DEFAULT 'roll', ADD COLUMN set_id UUID NULL, ADD COLUMN source_by UUID NULL, ADD INDEX (set_id)`,
  `UPDATE plans SET source_by = owner_id`,
  // A source of its own per entry; and what a run did to the course itself (names, windows).
  `ALTER TABLE run_entries MODIFY entity ENUM('category','unit','item','course') NOT NULL, ADD COLUMN source_course_id UUID NULL`,
  `ALTER TABLE runs ADD COLUMN snapshot_id UUID NULL`,
  // Who is writing into a shell. The lease ends what a stopped server left behind.
  `CREATE TABLE writing (course_id UUID PRIMARY KEY, person_id UUID NOT NULL, plan_id UUID NOT NULL, since DATETIME(3) NOT NULL, lease_until DATETIME(3) NOT NULL, FOREIGN KEY (person_id) REFERENCES people (id)) ${table}`,
  // Sections that show the content of another shell, with dates of their own.
  `CREATE TABLE joined_sections (course_id UUID PRIMARY KEY, content_id UUID NOT NULL, run_id UUID NOT NULL, joined_at DATETIME(3) NOT NULL, INDEX (content_id), INDEX (run_id), FOREIGN KEY (course_id) REFERENCES courses (id), FOREIGN KEY (content_id) REFERENCES courses (id)) ${table}`,
  `CREATE TABLE section_slots (course_id UUID NOT NULL, content_id UUID NOT NULL, lineage UUID NOT NULL, slot ENUM('opens','due','closes') NOT NULL, at CHAR(16) ${bin} NOT NULL, PRIMARY KEY (course_id, lineage, slot),
    FOREIGN KEY (course_id) REFERENCES courses (id), FOREIGN KEY (content_id, lineage) REFERENCES items (course_id, lineage) ON DELETE CASCADE) ${table}`,
  `CREATE TABLE plan_sections (plan_id UUID NOT NULL, course_id UUID NOT NULL, PRIMARY KEY (plan_id, course_id), FOREIGN KEY (plan_id) REFERENCES plans (id) ON DELETE CASCADE, FOREIGN KEY (course_id) REFERENCES courses (id)) ${table}`,
  `ALTER TABLE log ADD INDEX (person_id), ADD INDEX (action)`,
]

export async function up(db: Knex): Promise<void> {
  for (const statement of statements) await db.raw(statement)
}
