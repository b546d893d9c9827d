import type { Former } from '../editing/edits.queries'
import type { BatchState, PairEffect, PairState } from '../../shared/api/batches'
import type { Habit } from '../habits/habits.queries'
import type { TermCalendar } from '../../core/calendar/schema'
import type { ItemFieldColumns } from '../../core/course/fields'
import type { ItemDates } from '../../core/course/dates'
import type { CarriedBase } from '../../core/carry/base'
import type { Criterion, FurnishingName } from '../../core/course/furniture'
import type { ItemKind, ItemState, MadeBy, Release } from '../../core/course/model'
import type { Finding } from '../../core/formats/findings'
import type { Desk, MissingReason } from '../../core/pairing/missing'
import type { CategoryRules, GradeRules } from '../../core/grading/rules'
import type { BetterWay } from '../../core/plan/better'
import type { Effect } from '../../core/plan/effect'
import type { PlanDocument } from '../../core/plan/document'
import type { PackedEntries } from '../../core/plan/record'
import type { Since } from '../../shared/api/undo'
import type { KeptFacts } from '../runs/states.queries'
import type { ValuesOf } from '../../core/student-data/kind'
import type { studentDataKinds } from '../../core/student-data/kinds'
import type { StudentDataName } from '../../core/student-data/student-data'
import type { TraceRecord } from '../../core/student-data/traces/record'
import type { Looked, Trace } from '../../core/student-data/traces/trace'
import type { ClearedCounts } from '../../core/student-data/clearing'
import type { Shown } from '../courses/shown/body'
import type { Json, Packed } from './rows'

/**
 * Rows as the database holds them, a type for each table; `tests/integration/schema.test.ts` compares them with the schema.
 * Identifiers are UUIDs as text; a stamp is a DATETIME(3) in UTC; a decimal is text with four decimals.
 */
type Stamp = string
type Decimal = string
/** `YYYY-MM-DD` */
type CivilDate = string

export interface OrgRow {
  id: string
  source_id: string
  name: string
  type: string
  parent_source_id: string | null
}
export interface PersonRow {
  id: string
  source_id: string
  login: string | null
  given_name: string
  family_name: string
  email: string | null
  password: string | null
  active: boolean
  middle_name: string | null
  nickname: string | null
  /** What the institution calls them by: a student number. */
  number: string | null
  /** As the registrar has it; only who has a login signs in here. */
  user_name: string | null
  /** Keyed hashes of the ends of their phone numbers, with blanks between; the numbers are not kept. */
  phone_keys: string | null
  /** A line of the roster that came with a course: it has no account, stands there alone, and goes with the course. */
  of_course: string | null
}
export interface SessionRow {
  id: string
  person_id: string
  token_hash: string
  device: string
  started_at: Stamp
  seen_at: Stamp
  expires_at: Stamp
  ended_at: Stamp | null
}
export interface GuessRow {
  id: string
  kind: 'sign-in' | 'share-code' | 'invitation'
  name: string
  address: string
  at: Stamp
}
export interface KnownBrowserRow {
  token_hash: string
  person_id: string
  since: Stamp
}
export interface InvitationRow {
  id: string
  person_id: string
  token_hash: string
  invited_by: string
  invited_at: Stamp
  expires_at: Stamp
  ended_at: Stamp | null
}
export type DutyName = 'coordinator' | 'office'
export interface DutyRow {
  person_id: string
  org_id: string
  duty: DutyName
}

export interface TermRow {
  id: string
  code: string
  name: string
  time_zone: string
  classes_from: CivilDate
  classes_to: CivilDate
  calendar: Json<TermCalendar>
  /** The term of one course that came without a calendar; nobody else is offered it. */
  own: boolean
}
export interface BodyRow {
  hash: string
  size: number
  created_at: Stamp
}
export interface BodyPartRow {
  hash: string
  part: number
  bytes: Buffer
}
export interface ReadableBodyRow {
  hash: string
  form: Shown['form']
  version: number
  value: Json<Shown>
  made_at: Stamp
}
/** What a body links to within its course. */
export interface BodyLinkRow {
  hash: string
  lineage: string
}
export type CourseOrigin = 'registrar' | 'hand' | 'awaited' | 'template' | 'snapshot' | 'version' | 'file'
export interface CourseRow {
  id: string
  source_id: string
  term_id: string
  org_id: string
  code: string
  section: string
  title: string
  shown_title: string | null
  label: string | null
  origin: CourseOrigin
  language: string | null
  enrol_from: CivilDate | null
  enrol_to: CivilDate | null
  open_from: CivilDate | null
  open_to: CivilDate | null
  package_hash: string | null
  package_name: string | null
  missing_since: Stamp | null
  created_at: Stamp
}
export interface MeetingRow {
  course_id: string
  position: number
  weekday: 1 | 2 | 3 | 4 | 5 | 6 | 7
  start: string
  end: string
  room: string | null
}
export type StaffRole = 'instructor' | 'assistant'
export type EnrolmentRole = StaffRole | 'student'
export interface EnrolmentRow {
  id: string
  course_id: string
  person_id: string
  role: EnrolmentRole
  is_primary: boolean
  may_run: boolean
  origin: 'registrar' | 'hand'
  source_id: string | null
  dropped_at: Stamp | null
  missing_since: Stamp | null
}
export interface GradeCategoryRow {
  course_id: string
  lineage: string
  title: string
  weight: Decimal | null
  position: number
  identifier: string | null
  within: CategoryRules['within']
  drop_lowest: number
  drop_highest: number
  exempt: boolean
  fixed: boolean
}
export interface GradeRulesRow {
  course_id: string
  reckoned_by: GradeRules['by']
  ungraded: GradeRules['ungraded']
  decimals: number
  scale: Json<GradeRules['scale']>
}
export interface GraceRulesRow {
  course_id: string
  allowances: number
  days: number
  adds_up: boolean
}
export interface RubricRow {
  course_id: string
  lineage: string
  identifier: string | null
  position: number
  title: string
  criteria: Json<readonly Criterion[]>
}
export interface WorkGroupRow {
  course_id: string
  lineage: string
  identifier: string | null
  position: number
  title: string
}
export interface FurnishingRow {
  course_id: string
  lineage: string
  part: FurnishingName
  position: number
  title: string
  item_lineage: string | null
  details: Json<Readonly<Record<string, string>>>
}
/** What the next run into a course compares with, and how its template's things came. */
export interface CarriedBasesRow {
  course_id: string
  bases: Packed<readonly CarriedBase[]>
}
export interface UnitRow {
  course_id: string
  lineage: string
  parent_lineage: string | null
  position: number
  title: string
  state: ItemState
  opens: ItemDates['opens']
  identifier: string | null
  fixed: boolean
  made_by: MadeBy
}
export interface ItemRow extends ItemDates, ItemFieldColumns {
  course_id: string
  lineage: string
  parent_lineage: string | null
  position: number
  kind: ItemKind
  title: string
  state: ItemState
  exam: boolean
  points: Decimal | null
  category_lineage: string | null
  body_hash: string | null
  media_type: string | null
  settings: Json<Record<string, unknown>>
  identifier: string | null
  rubric_lineage: string | null
  group_lineage: string | null
  releases: Json<readonly Release[]>
  holds: Json<readonly ItemKind[]> | null
  fixed: boolean
  made_by: MadeBy
  grading_period: string | null
}
export interface CoursePreferenceRow {
  person_id: string
  course_id: string
  pinned: boolean
  hidden: boolean
  label: string | null
}

/** What every row of student data has: whom it is about, and which item; null: the course. */
export interface StudentDataRow {
  enrolment_id: string
  item_lineage: string | null
}
type Kinds = typeof studentDataKinds
/** The tables of student data, from the kinds' own definitions. */
type StudentDataTables = {
  [Name in StudentDataName]: {
    enrolment_id: string
    item_lineage: Kinds[Name]['about'] extends 'item' ? string : string | null
  } & ValuesOf<Kinds[Name]['columns']> &
    (Kinds[Name]['several'] extends true ? { id: string } : unknown) &
    (Kinds[Name]['text'] extends true ? { body_hash: string | null } : unknown)
}

export type PlanMode = 'roll' | 'in-place'
export type PlanState = 'draft' | 'run'
/** What a plan began with: the recommended decisions, those of the last run, or a habit (by its name); and the way to move dates that was better than the usual one. */
export interface BegunWith {
  how: 'recommended' | 'as-before' | 'habit'
  habit: string | null
  better?: BetterWay
}
export interface PlanRow {
  id: string
  source_course_id: string
  target_course_id: string
  owner_id: string
  source_by: string
  mode: PlanMode
  set_id: string | null
  document: Json<PlanDocument>
  begun_with: Json<BegunWith> | null
  revision: number
  state: PlanState
  created_at: Stamp
  updated_at: Stamp
  updated_by: string
}
export interface PlanSourceRow {
  plan_id: string
  position: number
  course_id: string
}
export interface PlanSectionRow {
  plan_id: string
  course_id: string
}
export interface AuditLine {
  kind: StudentDataName
  before: number
  after: number
  /** How many rows were cleared and are kept aside; runs of before say nothing of it. */
  cleared: number
  onNewItems: number
}
export interface RunRow {
  id: string
  plan_id: string
  source_course_id: string
  target_course_id: string
  snapshot_id: string | null
  person_id: string
  document: Json<PlanDocument>
  effect: Json<Effect>
  audit: Json<AuditLine[]>
  /** What was found of students in the texts, and what became of it; null before such texts were searched. */
  traces: Json<TraceRecord> | null
  started_at: Stamp
  finished_at: Stamp
  /** Null of runs that keep none. */
  entries: Packed<PackedEntries> | null
  /** What it changed of the shell and its sections themselves: by course and column. */
  facts: Json<Readonly<Record<string, Readonly<Record<string, FactChange>>>>>
  /** How the course stood before; null of runs of before this was kept. */
  before_id: string | null
  undone_at: Stamp | null
}
/** How a course stood at a time: a copy of its rows (null: it held nothing), and what is said of the course itself. */
export interface KeptStateRow {
  id: string
  course_id: string
  copy_id: string | null
  facts: Json<KeptFacts>
  kept_at: Stamp
}
/** Decisions that are remembered, of a person or of an organisation. */
export interface HabitRow {
  id: string
  person_id: string | null
  org_id: string | null
  name: string
  document: Json<PlanDocument>
  run_id: string
  is_usual: boolean
  made_by: string
  made_at: Stamp
}
/** What the plans of a batch begin with; a habit as it was when the batch was made. */
export type BatchDecisions =
  { readonly how: 'recommended' | 'as-before' } | { readonly how: 'habit'; readonly habit: Habit }
/** Pairs that are tried and rolled together. `origin`: where whoever reads of it by mail opens it. */
export interface BatchRow {
  id: string
  name: string
  term_id: string
  org_id: string
  person_id: string
  decisions: Json<BatchDecisions>
  state: BatchState
  filled_before: number
  origin: string
  made_at: Stamp
  run_by: string | null
  run_at: Stamp | null
  ended_at: Stamp | null
}
export interface BatchPairRow {
  id: string
  batch_id: string
  position: number
  source_text: string
  shell_text: string
  source_id: string | null
  shell_id: string | null
  plan_id: string | null
  /** Whether a run of it was undone since is the run's to say. */
  state: Exclude<PairState, 'undone'>
  /** What makes the pair doubtful however it is tried; and what came of trying or running it: a title, then details. */
  doubt: string | null
  problem: string | null
  effect: Json<PairEffect> | null
  fingerprint: string | null
  run_id: string | null
  ended_at: Stamp | null
  /** Its run is being undone with others of the batch, since then. */
  undo_asked_at: Stamp | null
}
/** A run that was undone, or an undo that was. */
export interface UndoRow {
  id: string
  run_id: string
  person_id: string
  kind: 'undo' | 'redo'
  at: Stamp
  /** How the course stood before this; null once that is kept no longer. */
  before_id: string | null
  /** What students had handed in since, kept aside. */
  clearing_id: string | null
  told: Json<Since>
}
/** What a search for traces of students in a plan's texts found. */
export interface TraceSearchRow {
  plan_id: string
  basis: string
  found: Json<readonly Trace[]>
  looked: Json<Looked>
  searched_at: Stamp
}
/** Student data that was cleared at once, and what became of what was kept of it. */
export interface ClearingRow {
  id: string
  course_id: string
  run_id: string | null
  person_id: string
  cleared_at: Stamp
  keep_until: Stamp
  counts: Json<ClearedCounts>
  state: 'kept' | 'restored' | 'destroyed'
  ended_at: Stamp | null
  ended_by: string | null
}
export interface KeptAsideRow {
  id: string
  clearing_id: string
  kind: string
  enrolment_id: string
  item_lineage: string | null
  former: Json<Readonly<Record<string, unknown>>>
  body_hash: string | null
}
/** A field of the shell itself that a run changed. */
export interface FactChange {
  before: string | null
  after: string | null
}
/** A title with the text of a body, as it is searched. */
export interface SearchedRow {
  id: string
  body_hash: string | null
  title: string
  text: string
}
/** Where it stands. */
export interface SearchedItemRow {
  course_id: string
  lineage: string
  searched_id: string
}
export interface TurnRow {
  name: string
  taken: number
  at: Stamp
}
export interface JoinedSectionRow {
  course_id: string
  content_id: string
  /** The run that joined it; null where it was linked without one. */
  run_id: string | null
  joined_at: Stamp
}
export interface SectionDatesRow extends ItemDates {
  course_id: string
  lineage: string
  content_id: string
}
/** When a unit of the content opens in a section. */
export interface SectionOpeningRow {
  course_id: string
  lineage: string
  content_id: string
  opens: ItemDates['opens']
}
export interface LogRow {
  id: string
  at: Stamp
  person_id: string | null
  action: string
  course_id: string | null
  plan_id: string | null
  run_id: string | null
  detail: Json<Record<string, unknown>>
}

export type Arrangement = 'weeks' | 'units'
export interface TemplateRow {
  course_id: string
  subject: string
  arrangement: Arrangement
  about: string
  person_id: string
  created_at: Stamp
  retired_at: Stamp | null
  version: number
  /** What changed with this version. */
  note: string
  open_to_colleagues: boolean
}
/** A course that a template was made from: its students may stand in the texts. */
export interface TemplateSourceRow {
  template_id: string
  course_id: string
}
export interface TemplateVersionRow {
  template_id: string
  number: number
  course_id: string
  person_id: string
  kept_at: Stamp
  note: string
}
export interface CourseEditRow {
  id: string
  course_id: string
  person_id: string
  at: Stamp
  words: string
  former: Json<Former>
  undone_at: Stamp | null
}
export interface ShareRow {
  id: string
  course_id: string
  person_id: string
  code: string | null
  org_id: string | null
  withheld: Json<ItemKind[]>
  created_at: Stamp
  expires_at: Stamp | null
  revoked_at: Stamp | null
  revoked_by: string | null
}
export interface ShareUseRow {
  share_id: string
  person_id: string
  at: Stamp
}

export interface JobRow {
  id: string
  kind: string
  subject: string
  person_id: string | null
  payload: Json<unknown>
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'
  step: string | null
  done: number
  total: number
  problem: string | null
  token: string | null
  lease_until: Stamp | null
  not_before: Stamp | null
  attempts: number
  created_at: Stamp
  finished_at: Stamp | null
}
export interface UploadRow {
  id: string
  person_id: string
  name: string
  size: number
  hash: string | null
  found: 'read' | 'refused' | null
  report: Json<unknown> | null
  outcome: Json<unknown> | null
  arrived_at: Stamp
}
export interface UploadPartRow {
  upload_id: string
  part: number
  bytes: Buffer
}

export interface FetchRow {
  id: string
  period: number | null
  person_id: string | null
  started_at: Stamp
  finished_at: Stamp | null
  state: 'waiting' | 'new' | 'same' | 'failed'
  etag: string | null
  problem: string | null
  counts: Json<Record<string, number>>
  findings: Json<Finding[]>
}
export interface RosterChangeRow {
  id: string
  fetch_id: string
  at: Stamp
  course_id: string
  kind: string
  count: number
  detail: Json<{ names?: string[]; before?: string; after?: string }>
}
export interface MailRow {
  id: string
  recipient: string
  reply_to: string | null
  subject: string
  body: string
  state: 'waiting' | 'sent' | 'failed'
  attempts: number
  problem: string | null
  created_at: Stamp
  sent_at: Stamp | null
}
export interface RequestRow {
  id: string
  person_id: string
  desk: Desk
  reason: MissingReason
  term_id: string
  code: string
  section: string
  words: string
  state: 'open' | 'arrived' | 'answered' | 'closed'
  answer: string | null
  course_id: string | null
  mail_id: string | null
  created_at: Stamp
  updated_at: Stamp
}
export interface OfficeRulesRow {
  name: string
  revision: number
  value: Json<unknown>
  person_id: string
  updated_at: Stamp
}

/** Every table by its name, as Knex types its queries. */
export interface NorthtideTables extends StudentDataTables {
  orgs: OrgRow
  people: PersonRow
  duties: DutyRow
  sessions: SessionRow
  guesses: GuessRow
  known_browsers: KnownBrowserRow
  invitations: InvitationRow
  terms: TermRow
  bodies: BodyRow
  body_parts: BodyPartRow
  readable_bodies: ReadableBodyRow
  body_links: BodyLinkRow
  courses: CourseRow
  meetings: MeetingRow
  enrolments: EnrolmentRow
  grade_categories: GradeCategoryRow
  grade_rules: GradeRulesRow
  grace_rules: GraceRulesRow
  rubrics: RubricRow
  work_groups: WorkGroupRow
  furnishings: FurnishingRow
  carried_bases: CarriedBasesRow
  units: UnitRow
  items: ItemRow
  course_preferences: CoursePreferenceRow
  plans: PlanRow
  plan_sources: PlanSourceRow
  plan_sections: PlanSectionRow
  runs: RunRow
  habits: HabitRow
  batches: BatchRow
  batch_pairs: BatchPairRow
  kept_states: KeptStateRow
  undos: UndoRow
  searched: SearchedRow
  searched_items: SearchedItemRow
  turns: TurnRow
  joined_sections: JoinedSectionRow
  section_dates: SectionDatesRow
  section_openings: SectionOpeningRow
  log: LogRow
  templates: TemplateRow
  template_versions: TemplateVersionRow
  template_sources: TemplateSourceRow
  course_edits: CourseEditRow
  shares: ShareRow
  share_uses: ShareUseRow
  jobs: JobRow
  uploads: UploadRow
  upload_parts: UploadPartRow
  fetches: FetchRow
  roster_changes: RosterChangeRow
  mails: MailRow
  requests: RequestRow
  office_rules: OfficeRulesRow
  trace_searches: TraceSearchRow
  clearings: ClearingRow
  kept_aside: KeptAsideRow
}
declare module 'knex/types/tables' {
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type -- the way to tell Knex of tables
  interface Tables extends NorthtideTables {}
}
