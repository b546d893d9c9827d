import { id, instant, key, wallTime } from '../columns'

/** Plans, what their runs did, and sections that show the content of another shell. */
export const plans = [
  // "target_course_id" is the shell; of a run in place it holds the place that the course will move into.
  // "source_by": who chose the sources; that person's right to roll from them is the plan's.
  `CREATE TABLE plans (
    id ${id} PRIMARY KEY,
    source_course_id ${id} NOT NULL,
    target_course_id ${id} NOT NULL,
    owner_id ${id} NOT NULL,
    source_by ${id} NOT NULL,
    mode ENUM('roll', 'in-place') NOT NULL DEFAULT 'roll',
    set_id ${id} NULL,
    document JSON NOT NULL,
    revision INT NOT NULL,
    state ENUM('draft', 'run') NOT NULL,
    created_at ${instant} NOT NULL,
    updated_at ${instant} NOT NULL,
    updated_by ${id} NOT NULL,
    INDEX (target_course_id, state),
    INDEX (set_id),
    FOREIGN KEY (source_course_id) REFERENCES courses (id),
    FOREIGN KEY (target_course_id) REFERENCES courses (id),
    FOREIGN KEY (owner_id) REFERENCES people (id),
    FOREIGN KEY (source_by) REFERENCES people (id),
    FOREIGN KEY (updated_by) REFERENCES people (id)
  )`,
  // Further sources after the plan's first, in their order.
  `CREATE TABLE plan_sources (
    plan_id ${id} NOT NULL,
    position INT NOT NULL,
    course_id ${id} NOT NULL,
    PRIMARY KEY (plan_id, position),
    FOREIGN KEY (plan_id) REFERENCES plans (id) ON DELETE CASCADE,
    FOREIGN KEY (course_id) REFERENCES courses (id)
  )`,
  `CREATE TABLE plan_sections (
    plan_id ${id} NOT NULL,
    course_id ${id} NOT NULL,
    PRIMARY KEY (plan_id, course_id),
    FOREIGN KEY (plan_id) REFERENCES plans (id) ON DELETE CASCADE,
    FOREIGN KEY (course_id) REFERENCES courses (id)
  )`,
  `CREATE TABLE runs (
    id ${id} PRIMARY KEY,
    plan_id ${id} NOT NULL,
    source_course_id ${id} NOT NULL,
    target_course_id ${id} NOT NULL,
    snapshot_id ${id} NULL,
    person_id ${id} NOT NULL,
    document JSON NOT NULL,
    effect JSON NOT NULL,
    audit JSON NOT NULL,
    started_at ${instant} NOT NULL,
    finished_at ${instant} NOT NULL,
    INDEX (target_course_id),
    FOREIGN KEY (plan_id) REFERENCES plans (id),
    FOREIGN KEY (source_course_id) REFERENCES courses (id),
    FOREIGN KEY (target_course_id) REFERENCES courses (id),
    FOREIGN KEY (snapshot_id) REFERENCES courses (id),
    FOREIGN KEY (person_id) REFERENCES people (id)
  )`,
  // What a run did, one row a thing. It is written first: the content is then inserted from it, set by set.
  `CREATE TABLE run_entries (
    run_id ${id} NOT NULL,
    entity ENUM('category', 'unit', 'item', 'course') NOT NULL,
    lineage ${id} NOT NULL,
    source_course_id ${id} NULL,
    action ENUM('added', 'replaced', 'cleared') NOT NULL,
    parent_lineage ${id} NULL,
    position INT NOT NULL,
    opens ${wallTime} NULL,
    due ${wallTime} NULL,
    closes ${wallTime} NULL,
    reasons JSON NULL,
    former JSON NULL,
    PRIMARY KEY (run_id, entity, lineage),
    FOREIGN KEY (run_id) REFERENCES runs (id)
  )`,
  // Who is writing into a shell. The lease ends what a stopped server left behind.
  `CREATE TABLE writing (
    course_id ${id} PRIMARY KEY,
    person_id ${id} NOT NULL,
    plan_id ${id} NOT NULL,
    since ${instant} NOT NULL,
    lease_until ${instant} NOT NULL,
    FOREIGN KEY (person_id) REFERENCES people (id)
  )`,
  `CREATE TABLE joined_sections (
    course_id ${id} PRIMARY KEY,
    content_id ${id} NOT NULL,
    run_id ${id} NOT NULL,
    joined_at ${instant} NOT NULL,
    INDEX (content_id),
    INDEX (run_id),
    FOREIGN KEY (course_id) REFERENCES courses (id),
    FOREIGN KEY (content_id) REFERENCES courses (id)
  )`,
  // The dates that items of the content have in one of its sections.
  `CREATE TABLE section_dates (
    course_id ${id} NOT NULL,
    lineage ${id} NOT NULL,
    content_id ${id} NOT NULL,
    opens ${wallTime} NULL,
    due ${wallTime} NULL,
    closes ${wallTime} NULL,
    PRIMARY KEY (course_id, lineage),
    FOREIGN KEY (course_id) REFERENCES courses (id),
    FOREIGN KEY (content_id, lineage) REFERENCES items (course_id, lineage) ON DELETE CASCADE
  )`,
  `CREATE TABLE log (
    id ${id} PRIMARY KEY,
    at ${instant} NOT NULL,
    person_id ${id} NULL,
    action ${key} NOT NULL,
    course_id ${id} NULL,
    plan_id ${id} NULL,
    run_id ${id} NULL,
    detail JSON NOT NULL,
    INDEX (at), INDEX (course_id), INDEX (person_id), INDEX (action)
  )`,
]
