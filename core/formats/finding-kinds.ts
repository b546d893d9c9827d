import { counted } from '../dates/words'
import { sizeText } from './limits'

export type Severity = 'error' | 'warning' | 'note'

/** A kind of finding: how grave it is and its sentence, which follows the name of the place; both from what is known of it. */
interface FindingKind<Known extends unknown[]> {
  readonly severity: (...known: Known) => Severity
  readonly says: (...known: Known) => string
  /** What findings of this kind are counted apart for. */
  readonly apart: (...known: Known) => string
  readonly about?: 'columns'
}
type Says<Known extends unknown[]> = (...known: Known) => string
const nothingApart = (): string => ''
const told =
  (severity: Severity) =>
  <Known extends unknown[]>(says: Says<Known>, apart: Says<Known> = nothingApart): FindingKind<Known> => ({
    severity: () => severity,
    says,
    apart,
  })
/** Costs what it is about. */
const error = told('error')
/** May surprise. */
const warning = told('warning')
/** Explains. */
const note = told('note')
/** Grave where it costs the whole row. */
const perRow = <Of extends { required: boolean }>(
  says: (of: Of) => string,
  apart: (of: Of) => string,
): FindingKind<[of: Of]> => ({
  severity: ({ required }) => (required ? 'error' : 'warning'),
  says,
  apart,
})
/** Rests on what the columns of a table were taken to mean, and falls away where a person says otherwise. */
const ofColumns = <Known extends unknown[]>(kind: FindingKind<Known>): FindingKind<Known> => ({
  ...kind,
  about: 'columns',
})

const cut = (text: string, length: number): string => text.slice(0, length)
const quoted = (text: string, length: number): string => JSON.stringify(cut(text, length))
const shown = (value: string): string => JSON.stringify(value.length > 80 ? `${cut(value, 80)}…` : value)
const lengthOf = (allDay: boolean): string => (allDay ? 'one day' : 'without duration')

/** What is amiss with a value of a OneRoster table. */
export type ValueFault =
  | { is: 'empty' }
  | { is: 'no-date' | 'no-number' | 'below-zero' | 'no-instant' | 'no-moment'; value: string }
  | { is: 'not-listed'; value: string; list: readonly string[] }
function faultText(fault: ValueFault): string {
  switch (fault.is) {
    case 'empty':
      return 'is empty'
    case 'no-date':
      return `${shown(fault.value)} is not a date (YYYY-MM-DD)`
    case 'no-number':
      return `${shown(fault.value)} is not a number`
    case 'below-zero':
      return `${shown(fault.value)} is below 0`
    case 'no-instant':
      return `${shown(fault.value)} is not an instant (YYYY-MM-DDThh:mm:ssZ)`
    case 'no-moment':
      return `${shown(fault.value)} is not a date (YYYY-MM-DD) or an instant`
    case 'not-listed':
      return `${shown(fault.value)} is not one of ${fault.list.join(', ')}`
  }
}
/** A question, counted from 1 within its quiz or bank. */
interface AQuestion {
  number: number
  name: string
}
const questionText = ({ number, name }: AQuestion): string => `question ${number} (“${cut(name, 60)}”)`
/** Rows of a OneRoster bundle by table, and what one of them is called. */
type Lost = readonly { table: string; rows: number }[]
const rowWords: Record<string, readonly [string, string]> = {
  orgs: ['organisation', 'organisations'],
  users: ['person', 'people'],
  academicSessions: ['term', 'terms'],
  courses: ['course', 'courses'],
  classes: ['class', 'classes'],
  enrollments: ['enrolment', 'enrolments'],
  categories: ['grade category', 'grade categories'],
  lineItems: ['line item', 'line items'],
  results: ['result', 'results'],
  resources: ['resource', 'resources'],
  classResources: ['resource of a class', 'resources of classes'],
  courseResources: ['resource of a course', 'resources of courses'],
}
const rowsText = (lost: Lost): string =>
  lost
    .map(({ table, rows }) => {
      const [one, many] = rowWords[table] ?? [`row of ${table}`, `rows of ${table}`]
      return `${rows} ${rows === 1 ? one : many}`
    })
    .join(', ')
/** `class K-1`, where it is but one; else `19 enrolments`. */
function directText(lost: Lost, only: string): string {
  const [first] = lost
  if (!first || lost.length > 1 || first.rows > 1) return rowsText(lost)
  return `${rowWords[first.table]?.[0] ?? first.table} ${cut(only, 80)}`
}
function wakeText(wake: Lost, direct: Lost): string {
  if (wake.length === 0) return ''
  const isOne = direct.length === 1 && direct[0]?.rows === 1
  return `, and with ${isOne ? 'it' : 'them'} ${rowsText(wake)}`
}
/** Where in a OneRoster bundle. */
interface Cell {
  table: string
  column: string
}
const columnOf = ({ table, column }: Cell): string => `${table} ${column}`

/** Everything that can be noticed while reading, by its code: the one place where it becomes a sentence. */
export const findingKinds = {
  // Any file.
  encoding: warning(
    (of: { encoding: string }) => `is not UTF-8. It was read as ${of.encoding}: check accented letters`,
  ),
  'packed-in-folder': warning(
    (of: { folder: string }) => `was packed with the folder ${of.folder} around it; it was read from there`,
  ),
  'title-cut': warning(
    (of: { title: string; length: number; kept: number }) =>
      `the title “${cut(of.title, 60)}…” has ${of.length} characters and was cut to ${of.kept}`,
  ),
  unreadable: error((of: { why: string }) => `cannot be read (${of.why})`),
  refused: error((of: { reason: string; wayOn: string }) => `${of.reason}. ${of.wayOn}`),

  // Common Cartridge.
  'version-unstated': warning(
    (of: { version: string }) => `says no version; it was read as ${of.version}, by its namespace`,
  ),
  'namespace-unlike': warning(
    (of: { version: string; namespace: string }) =>
      `has ${of.namespace ? `the namespace ${cut(of.namespace, 120)}` : 'no namespace'}, which is not that of Common Cartridge ${of.version}; it was read by the names of its elements`,
  ),
  'versions-differ': warning(
    (of: { version: string; byNamespace: string }) =>
      `says it is version ${of.version} and has the namespace of ${of.byNamespace}; it was read as ${of.version}`,
  ),
  'several-organisations': warning(
    (of: { count: number; used: string }) =>
      `has ${of.count} organisations; “${of.used}” gives the order, and what only the others show came after it`,
  ),
  'no-organisation': warning(() => 'has no organisation: everything in it came without order'),
  'no-root-item': warning((of: { items: number }) =>
    of.items === 0
      ? 'its organisation holds no item'
      : 'its organisation has no single root item; the items in it were read as they stand',
  ),
  'resource-identifier': error(
    (of: { identifier: string }) =>
      `a resource has ${of.identifier ? `the identifier ${of.identifier}, which another has too` : 'no identifier'}; it was left out`,
  ),
  'item-identifier': warning(
    (of: { title: string; identifier: string }) =>
      `“${of.title}” has ${of.identifier ? `the identifier ${of.identifier}, which another item has too` : 'no identifier'}; both stay where they are, this one under a name of its own`,
  ),
  'resource-unlisted': error(
    (of: { title: string; resource: string }) =>
      `“${of.title}” points to the resource ${of.resource}, which the package does not list; it came as a heading`,
  ),
  'dependency-unlisted': error(
    (of: { resource: string; needs: string }) =>
      `the resource ${of.resource} needs ${of.needs || 'a resource without a name'}, which the package does not list`,
  ),
  'file-elsewhere': warning(
    (of: { resource: string; address: string }) =>
      `the resource ${of.resource} names ${quoted(of.address, 200)}, which is not in the package; nothing is fetched, it was left out`,
  ),
  'file-absent': error(
    (of: { resource: string; file: string }) =>
      `the package does not hold ${of.file}, a file of the resource ${of.resource}`,
  ),
  'file-unlisted': note(
    () => 'is not listed in the manifest and nothing leads to it; it stays in the package that is kept',
  ),
  'link-absent': warning(
    (of: { how: 'links to' | 'attaches'; address: string }) =>
      `${of.how} ${cut(of.address, 200)}, which the package does not hold`,
    of => of.how,
  ),
  'led-to': warning(() => 'is not listed in the manifest; it was kept, because a page leads to it'),
  'never-referenced': note(
    (of: { title: string }) =>
      `“${of.title}” is in no item and nothing leads to it; it was kept, after the units`,
  ),
  'no-file': error(
    (of: { resource: string; file: string | null }) =>
      `the package does not hold ${of.file === null ? 'any file' : `${of.file}, the file`} of the resource ${of.resource}`,
  ),
  damaged: error((of: { reason: string }) => of.reason),
  'unlike-its-type': error((of: { reason: string }) => `${of.reason}; it came as a file`),
  'type-not-read': warning(
    (of: { type: string }) => `a resource of the type ${of.type || '(none)'} is not read; it came as a file`,
  ),
  'xml-too-long': error(
    (of: { bytes: number }) => `is an XML document of more than ${sizeText(of.bytes)}; it came as a file`,
  ),
  'staff-only': note((of: { title: string }) => `“${of.title}” is for staff only; it comes hidden`),
  'no-address': error(() => 'the web link has no address'),
  'address-kept-out': warning(
    (of: { address: string }) =>
      `the web link leads to ${quoted(of.address, 200)}, which is not an http or https address; it is kept and cannot be pressed`,
  ),
  'no-launch-address': warning(() => 'the tool link has no launch address'),
  'no-question': warning((of: { holder: string }) => `the ${of.holder} holds no question`),
  'beyond-profile': note(
    (of: { elements: readonly string[] }) =>
      `has parts that the Common Cartridge profiles of QTI do not have (${of.elements.join(', ')}); they are kept and not shown`,
  ),
  'question-unlike': note(
    (of: { unlike: number; all: number }) =>
      `${of.unlike} of ${of.all} questions are of no type of the Common Cartridge profiles; they are kept as they came`,
  ),
  'question-profile': note(
    (of: AQuestion & { profile: string | null }) =>
      `${questionText(of)} ${of.profile === null ? 'names no profile' : `names the profile ${quoted(of.profile, 60)}, which Common Cartridge does not have`}; it was taken for what it looks like`,
  ),
  'question-without-choices': warning((of: AQuestion) => `${questionText(of)} offers no choices`),
  'question-without-answer': warning((of: AQuestion) => `${questionText(of)} has no right answer`),
  'question-weight': warning(
    (of: AQuestion & { weight: string }) =>
      `${questionText(of)} has the weight ${quoted(of.weight, 40)}, which is no number; it counts one point`,
  ),
  'topic-namespace': warning(
    (of: { namespace: string }) =>
      `is a topic in ${of.namespace ? `the namespace ${quoted(of.namespace, 120)}, which is not that of topics` : 'no namespace'}; it was read by the names of its elements`,
  ),
  'encoding-contradicts': warning(
    (of: { says: string; is: string }) =>
      `says it is in ${cut(of.says, 40)}, and its bytes are ${of.is}; it was read as ${of.is}`,
  ),
  'points-unread': warning(
    (of: { points: string }) => `the points ${quoted(of.points, 40)} are no number; the assignment has none`,
  ),

  // iCalendar.
  'not-events': note(
    (of: { component: string; count: number }) =>
      `${of.count} of ${cut(of.component, 40)} ${of.count === 1 ? 'is no event; it was' : 'are no events; they were'} not read`,
  ),
  'zone-unknown': note(
    (of: { zone: string }) =>
      `the zone ${cut(of.zone, 80)} is not described in the file; its times were read as they stand`,
    of => of.zone,
  ),
  'zone-unreadable': warning(
    (of: { zone: string; why: string }) =>
      `the zone ${cut(of.zone, 80)} cannot be read (${of.why}); its times were read as they stand`,
    of => of.zone,
  ),
  'event-unreadable': error(
    (of: { title: string; why: string }) =>
      `${of.title ? `“${cut(of.title, 60)}”` : 'this event'} cannot be read: ${of.why}; it was left out`,
  ),
  'uid-twice': warning(
    (of: { title: string; other: string; otherLine: number }) =>
      `“${of.title}” has the UID of “${of.other}” (line ${of.otherLine}), and no RECURRENCE-ID says which occurrence it stands for; both are kept`,
  ),
  'no-plain-date': warning(
    (of: { title: string; property: string; value: string }) =>
      `“${of.title}”: ${of.property} announces a date, and ${quoted(of.value, 40)} has a time too; the day was read`,
  ),
  'in-utc': note(
    (of: { events: number }) =>
      `${of.events === 1 ? '1 event gives its times in UTC; its days are' : `${of.events} events give their times in UTC; their days are`} those in UTC`,
  ),
  'too-long': warning((of: { title: string }) => `“${of.title}” is longer than ten years; it was left out`),
  'rule-without-start': warning(
    ({ title }: { title: string }) =>
      `the rule of ${quoted(title, 60)} does not hold the day it starts on; its days are those of the rule (RFC 5545 leaves it open)`,
  ),
  'too-often': warning(
    (of: { title: string; most: number }) =>
      `“${of.title}” repeats more than ${of.most} times; the others were left out`,
  ),
  endless: note(
    (of: { rules: number; days: number }) =>
      `${of.rules} ${of.rules === 1 ? 'rule has' : 'rules have'} no end; what comes more than ${of.days} days after the start was cut (give a first and last day to read more)`,
  ),
  outside: note(
    (of: { events: number }) =>
      `${of.events === 1 ? '1 event lies outside the days asked for; it was' : `${of.events} events lie outside the days asked for; they were`} left out`,
  ),
  cancelled: note(
    (of: { events: number }) =>
      `${of.events === 1 ? '1 event is cancelled; it was' : `${of.events} events are cancelled; they were`} left out`,
  ),
  'no-event': warning(() => 'holds no event'),
  'end-unreadable': warning(
    (of: { title: string; allDay: boolean }) =>
      `“${of.title}”: DTEND is no date; the event was read as ${lengthOf(of.allDay)}`,
  ),
  'end-before-start': warning(
    (of: { title: string; allDay: boolean }) =>
      `“${of.title}” ends before it starts; it was read as ${lengthOf(of.allDay)}`,
  ),
  'duration-below-zero': warning(
    (of: { title: string }) => `“${of.title}” has a duration below zero; it was read without one`,
  ),
  'rdate-unreadable': warning(
    (of: { title: string }) => `“${of.title}”: an RDATE is no date; it was left out`,
  ),
  'exdate-unreadable': warning(
    (of: { title: string }) => `“${of.title}”: an EXDATE is no date; it was left out`,
  ),

  // OneRoster: what concerns a row, by table and column.
  'mode-unknown': error(
    (of: { table: string; mode: string; isThere: boolean }) =>
      `${shown(of.mode)} is not one of absent, bulk, delta; ${of.isThere ? 'the table was read as bulk' : 'the table is not there'}`,
  ),
  'table-unnamed': warning(
    (of: { table: string; mode: string | undefined; isRead: boolean }) =>
      `is in the bundle and the manifest ${of.mode === undefined ? 'does not name it' : 'says it is absent'}; it was ${of.isRead ? 'read all the same' : 'not read'}`,
  ),
  'table-absent': error(
    (of: { table: string; wake: Lost }) =>
      `the manifest names this file, and it is not in the bundle${of.wake.length === 0 ? '' : `; with it ${rowsText(of.wake)} cannot be used`}`,
  ),
  'not-a-table': note(() => 'is no table of OneRoster 1.1; it was not read'),
  'column-spelled': note(
    (of: { found: string; column: string }) => `the column ${shown(of.found)} was read as ${of.column}`,
  ),
  delimiter: warning(
    (of: { delimiter: string }) =>
      `its values are separated by ${of.delimiter === ';' ? 'semicolons' : 'tabs'}, not commas`,
  ),
  'status-unknown': error(
    (of: Cell & { status: string }) =>
      `${shown(of.status)} is not one of active, tobedeleted; the row was left out`,
    columnOf,
  ),
  'too-wide': warning(
    (of: Cell & { values: number; columns: number }) =>
      `has ${of.values} values for ${of.columns} columns; the last ${of.values - of.columns} were left out`,
    columnOf,
  ),
  'value-unlike': perRow(
    (of: Cell & { required: boolean; fault: ValueFault }) =>
      `${faultText(of.fault)}; the ${of.required ? 'row' : 'value'} was left out`,
    columnOf,
  ),
  'reference-dropped': warning(
    (of: Cell & { key: string; refers: string; rows: number }) =>
      `${cut(of.key, 80)} is not in ${of.refers}.csv; ${of.rows === 1 ? 'the value was' : `the value was left out of ${of.rows} rows, this one first`}${of.rows === 1 ? ' left out' : ''}`,
    columnOf,
  ),
  'reference-unknown': error(
    (of: { table: string; key: string; refers: string; direct: Lost; only: string; wake: Lost }) =>
      `${cut(of.key, 80)} is not in ${of.refers}.csv: ${directText(of.direct, of.only)} cannot be used${wakeText(of.wake, of.direct)}`,
    of => of.refers,
  ),
  'lost-with-it': error(
    (of: { table: string; key: string; wake: Lost }) =>
      `${cut(of.key, 80)} cannot be used, and with it ${rowsText(of.wake)}`,
    of => of.table,
  ),
  'dates-inverted': warning(
    (of: Cell & { first: string; then: string; firstColumn: string }) =>
      `${of.then} lies before ${of.firstColumn}, ${of.first}; both are kept as they came`,
    columnOf,
  ),
  'parent-circle': error(
    (of: Cell & { keys: readonly string[] }) =>
      `its parents lead round in a circle (${of.keys.join(', ')}); this parent was left out`,
    columnOf,
  ),
  'column-unknown': note(
    (of: { table: string; columns: readonly string[] }) =>
      `OneRoster 1.1 has no ${of.columns.length === 1 ? 'column' : 'columns'} ${of.columns.map(shown).join(', ')}; what stands there was not read`,
  ),
  'table-empty': error(
    (_of: { table: string }) => 'has no byte in it, not even a row of column names; it counts as not there',
  ),
  'file-empty': note(() => 'has no byte in it; it was not read'),
  'key-twice': error(
    (of: Cell & { key: string }) => `${of.key} stands in an earlier row too; this one was left out`,
    columnOf,
  ),
  'to-be-deleted': note(
    (of: { rows: number }) =>
      `${of.rows === 1 ? '1 row is marked as to be deleted; it is' : `${of.rows} rows are marked as to be deleted; they are`} not among those read`,
  ),

  // A roster that is brought in.
  'login-taken': error(
    (of: { login: string; owner: string }) =>
      `the sign-in name ${of.login} is that of ${of.owner}; this person was taken without one`,
  ),
  'term-without-calendar': error(
    (of: { term: string }) => `its term ${of.term} has no calendar yet; the class was left out`,
  ),
  'school-unknown': error(
    (of: { school: string }) => `its school ${of.school} is not known here; the class was left out`,
  ),
  'periods-unreadable': warning((of: { problem: string }) => `${of.problem}; its meetings stay as they were`),
  'enrolments-of-strangers': error(
    (of: { rows: number }) =>
      `${of.rows} rows name a class or a person that is not known here; they were left out`,
  ),

  // A course that is put together.
  'days-only': note(
    ({ items, opens, due }: { items: number; opens: string; due: string }) =>
      `${items === 1 ? 'one item has' : `${items} items have`} days without a time: they open at ${opens}, and are due and close at ${due}`,
  ),
  'item-unknown': warning(
    (of: { item: string }) => `the item ${of.item} is not in the course; what was said of it was left out`,
  ),
  'category-unknown': warning(
    (of: { item: string; category: string }) =>
      `the item ${of.item} names the category ${of.category}, which the course does not have`,
  ),
  'named-unknown': warning(
    (of: { item: string; sort: 'rubric' | 'group'; name: string }) =>
      `the item ${of.item} names the ${of.sort} ${of.name}, which the course does not have`,
  ),
  'saying-unmet': warning(
    ({ title, why, alike }: { title: string; why: 'none' | 'several' | 'taken'; alike: number }) =>
      `${title ? `${quoted(title, 60)} ` : ''}${unmetText(why, alike)}; it stays out`,
  ),
  'students-stay-out': note(
    ({ records }: { records: number }) =>
      `${counted(records, 'record about a student stays', 'records about students stay')} out: only the academic office brings these in`,
  ),
  'second-course-json': note(
    ({ first }: { first: string }) =>
      `of its items the dates, points and categories count; what it says beside them stays out, because ${quoted(first, 60)} says that`,
  ),
  'rest-stays-out': note(
    ({ parts }: { parts: readonly string[] }) =>
      `dates, points, categories and grading periods count; what it says beside them (${parts.join(', ')}) comes together with the package`,
  ),
  'roster-stays-out': note(
    ({ people, enrolments }: { people: number; enrolments: number }) =>
      `terms, ${counted(people, 'person', 'people')} and ${counted(enrolments, 'enrolment', 'enrolments')} stay out: the academic office brings a roster in`,
  ),
  'date-far': warning(
    ({ title, verb, at }: { title: string; verb: string; at: string }) =>
      `${title ? `${quoted(title, 60)} ` : ''}${verb} on ${at}, more than two years from the term: the date stays out`,
  ),
  'own-kept': note(
    ({ fields }: { fields: number }) =>
      `${counted(fields, 'date or number stays as the course has it', 'dates or numbers stay as the course has them')}: somebody changed ${fields === 1 ? 'it' : 'them'} there, or a file that counts more said so`,
  ),
  'line-items-stay-out': note(
    ({ lineItems, classes, why }: { lineItems: number; classes: number; why: keyof typeof noCourseTexts }) =>
      `${counted(lineItems, 'line item')} of ${counted(classes, 'class', 'classes')} ${lineItems === 1 ? 'stays' : 'stay'} out: ${noCourseTexts[why]}`,
  ),
  'results-unmet': note(
    ({ results, why }: { results: number; why: 'line-items' | 'students' }) =>
      `${counted(results, 'result', 'results')} of this class ${results === 1 ? 'stays' : 'stay'} out: ${why === 'students' ? 'the student is not on the roster here' : 'the line item meets nothing here'}`,
  ),
  'not-in-class': warning(
    (of: { item: string } | { student: string }) =>
      `${'item' in of ? `the item ${of.item}` : `the student ${of.student}`} is not in this class; the row was left out`,
  ),

  // Tables of dates.
  'table-of-dates': ofColumns(
    note(
      (of: { title: string; first: string; last: string | null }) =>
        `a table of dates: “${of.title}” was read as the name, “${of.first}” as the first day${of.last === null ? '' : `, “${of.last}” as the last day`}; the upload page lets you say otherwise`,
    ),
  ),
  'day-or-month-first': ofColumns(
    warning(() => 'day and month cannot be told apart; the day was taken to come first'),
  ),
  'sheets-unread': note(
    (of: { sheet: string; others: number }) =>
      `the sheet “${of.sheet}” was read; ${of.others} other ${of.others === 1 ? 'sheet was' : 'sheets were'} not`,
  ),
  'first-day-absent': ofColumns(warning(() => 'is empty; the row was left out')),
  'first-day-unreadable': ofColumns(
    error(
      (of: { value: string }) => `${quoted(of.value, 60)} is not a date with a year; the row was left out`,
    ),
  ),
  'last-day-unreadable': ofColumns(
    warning(
      (of: { value: string }) =>
        `${quoted(of.value, 60)} is not a date with a year; the row was read as one day`,
    ),
  ),
  'last-day-before-first': ofColumns(
    warning(
      (of: { first: string; last: string }) =>
        `${of.last} lies before ${of.first}; the row was read as one day`,
    ),
  ),
  'no-name': ofColumns(warning(() => 'is empty; the event has no name')),
}

const noCourseTexts = {
  none: 'no course here is that class',
  empty: 'the course holds no items yet; bring its package in first, or together with this bundle',
  joined: 'the course shows the content of another section; its own line items go there',
  'not-yours': 'others teach it',
}
function unmetText(why: 'none' | 'several' | 'taken', alike: number): string {
  if (why === 'none') return 'meets no item of the course'
  return why === 'several'
    ? `is like ${alike} items of the course`
    : 'meets an item that another line of the file has met'
}
export type FindingCode = keyof typeof findingKinds
/** What a finding of a code is told with: nothing, or what is known of it. */
export type Known<Code extends FindingCode> = Parameters<(typeof findingKinds)[Code]['says']>
export const findingCodes = Object.keys(findingKinds) as [FindingCode, ...FindingCode[]]
