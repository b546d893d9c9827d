import type { Knex } from 'knex'
import type { CourseContent } from '../../core/course/model'
import { dateFields, dateVerbs, usualTimes } from '../../core/course/dates'
import { dayOf } from '../../core/calendar/day'
import { validYears, type ZoneRules } from '../../core/calendar/zone'
import { dayText } from '../../core/dates/words'
import { finding, type Finding } from '../../core/formats/findings'
import { readCourseDocument, type CourseDocument } from '../../core/formats/json/documents'
import { readOneRoster, type Roster } from '../../core/formats/oneroster/read'
import type { ReadLimits } from '../../core/formats/limits'
import { classOf, sayingsOf, type Contribution } from '../../core/gather/contribution'
import { gatheredDocument, restSaid, withoutStudents } from '../../core/gather/document'
import { withoutFar, type FarDate, type Taught } from '../../core/gather/far'
import { itemsOfPackage } from '../../core/gather/from-files'
import { gather, saidBy, type Gathered } from '../../core/gather/gather'
import { isDay, type GatheredItem, type SaidBy, type Saying } from '../../core/gather/saying'
import type { CourseImport, GatherAsked, GatherReply } from '../../shared/api/gathering'
import { present } from '../../core/present'
import { findTerm, latestZone } from '../calendars/terms.queries'
import { zoneRules } from '../calendars/zones'
import { accessToCourse } from '../courses/access'
import { loadCourseKeys, loadFacts } from '../courses/courses.queries'
import { notFound, refuse } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { belongsTo } from './belongs'
import { bufferSource, openZip } from './files/zip'
import type { Results } from './import-course'
import { itemsOfCourse } from './said'
import { findUpload, loadReport, partsOf, uploadsOf, type Upload } from './uploads.queries'

/** A file that has been read, with what it has to say of a course; null where it says nothing. */
export async function contributionOf(db: Knex, upload: Upload): Promise<Contribution | null> {
  const report = upload.found === 'read' ? await loadReport(db, upload.id) : null
  return report?.detail.contribution ?? null
}
type Span = { readonly from: string; readonly to: string } | null
/** By which clock a course's dates are told, and when it was taught: as its term says, or from its first day to its last by the institution's clock. */
export async function taughtWhen(
  db: Knex,
  { term, span = null }: { term: string; span?: Span },
): Promise<{ zone: ZoneRules; taught: Taught | null }> {
  const found = span ? null : await findTerm(db, term)
  const zone = zoneRules(found?.timeZone ?? (await latestZone(db)) ?? 'UTC', validYears)
  const days = found ? { from: found.classesFrom, to: found.classesTo } : span
  const classes = days && { from: dayOf(days.from), to: dayOf(days.to) }
  return { zone, taught: classes && { classes, exams: null } }
}
/** What a date that cannot be meant is told as. */
export const farFinding = ({ file, where, title, field, value }: FarDate): Finding =>
  finding('date-far', `${file}, ${where}`, {
    title,
    verb: dateVerbs[field],
    at: `${dayText(value)} ${value.slice(0, 4)}`,
  })
/** Of files of one name the one that was sent last counts: it stands in for those before. */
const newest = (uploads: readonly Upload[]): Upload[] =>
  uploads.filter(({ name }, at) => uploads.findIndex(each => each.name === name) === at)
/** A bundle is of many courses: it may come in with each of them. */
const mayComeAgain = (contribution: Contribution | null): boolean => contribution?.as === 'line-items'

/**
 * What the items of a package are, to which course it may belong, and what the person's other files say of them; of a file that is no package,
 * what it and the others say of the items of a course that is there. Which of it counts is worked out where it is shown, and again where it is
 * brought in, by the same call (`core/gather`).
 * @throws Refusal where the file says nothing of a course
 */
export async function readGathering(
  db: Knex,
  person: Person,
  id: string,
  asked: GatherAsked,
): Promise<GatherReply> {
  const upload = await findUpload(db, id)
  const own = upload?.personId === person.id ? await contributionOf(db, upload) : null
  if (!upload || !own) throw notFound('This package')
  const isPackage = own.as === 'package'
  const course = asked.course ? await courseOf(db, person, asked.course) : null
  const items = isPackage ? own.items : course ? await itemsOfCourse(db, course.id, false) : []
  const span = asked.from && asked.to ? { from: asked.from, to: asked.to } : null
  const { zone, taught } = await taughtWhen(db, course ?? { term: asked.term ?? '', span })
  const others = newest((await uploadsOf(db, person.id)).filter(other => other.id !== id))
  const files: GatherReply['files'] = []
  const classes = new Set<string>(isPackage ? [] : classesSaid(own, items))
  for (const file of isPackage ? others : [upload, ...others]) {
    const contribution = await contributionOf(db, file)
    if (!contribution || contribution.as === 'package') continue
    if (file.outcome && !mayComeAgain(contribution)) continue
    const said = sayingsOf(file.name, contribution, { items, zone, classKey: course?.classKey ?? null })
    const near = nearOf(said, taught)
    // A file that says nothing of the package's items does not say either which class it is.
    if (isPackage && gather(items, near.sayings).met.length > 0)
      for (const key of classesSaid(contribution, items)) classes.add(key)
    files.push({
      id: file.id,
      name: file.name,
      as: contribution.as,
      ...near,
      ...orderSaid(contribution, taught),
      unread: contribution.as === 'sheet' ? [...contribution.unread] : [],
    })
  }
  const report = await loadReport(db, id)
  const courses = await belongsTo(db, person, {
    title: isPackage ? (report?.detail.title ?? '') : '',
    items: isPackage ? items : [],
    classes: [...classes],
    chosen: isPackage ? (course?.id ?? null) : null,
  })
  return {
    courses,
    items: items.map(item => ({ ...item, touched: [...(item.touched ?? [])] })),
    files,
    ...(isPackage ? await calendarsAmong(db, others) : { calendars: [], days: [] }),
  }
}
/** Calendars among a person's files: whole terms, and days that may be closures of one. */
async function calendarsAmong(
  db: Knex,
  uploads: readonly Upload[],
): Promise<Pick<GatherReply, 'calendars' | 'days'>> {
  const calendars: GatherReply['calendars'] = []
  const days: GatherReply['days'] = []
  for (const { id, name, found, outcome } of uploads) {
    const report = found === 'read' && !outcome ? await loadReport(db, id) : null
    const { calendar, contribution } = report?.detail ?? {}
    if (calendar)
      calendars.push({
        id,
        file: name,
        name: calendar.name || calendar.id,
        code: calendar.id,
        ...calendar.classes,
      })
    else if (report && !contribution && report.events.length > 0)
      days.push({ id, file: name, events: report.events.slice(0, eventsAtMost) })
  }
  return { calendars, days }
}
const eventsAtMost = 500
/** What is said without the dates that cannot be meant, and these in words. */
function nearOf(
  said: readonly Saying[],
  taught: Taught | null,
): { sayings: Saying[]; far: { where: string; message: string }[] } {
  const { sayings, far } = withoutFar(said, taught)
  return {
    sayings: [...sayings],
    far: far.map(farFinding).map(({ where, message }) => ({ where, message })),
  }
}
/** In which order a table's days and months were read, and what it says in the other, where both can be meant. */
function orderSaid(
  contribution: Contribution,
  taught: Taught | null,
): Pick<GatherReply['files'][number], 'order' | 'other'> {
  if (contribution.as !== 'sheet' || !contribution.other) return { order: null, other: null }
  return { order: contribution.order, other: nearOf(contribution.other.sayings, taught) }
}
/** A course that somebody may write, and what is asked of it here. @throws Refusal */
async function courseOf(
  db: Knex,
  person: Person,
  id: string,
): Promise<{ id: string; term: string; classKey: string | null }> {
  if (!(await accessToCourse(db, person, id)).run) throw notFound('This course')
  const { term, origin } = await loadFacts(db, id)
  const { sourceId } = present(await loadCourseKeys(db, id))
  return { id, term: term.code, classKey: origin === 'registrar' ? sourceId : null }
}
/** The classes that a file says it is about. */
function classesSaid(contribution: Contribution, items: readonly GatheredItem[]): string[] {
  if (contribution.as === 'course-json') return [contribution.classKey]
  if (contribution.as === 'line-items' && items.length === 0)
    return contribution.tables.classes.map(({ key }) => key)
  const key = contribution.as === 'line-items' ? classOf(contribution.tables, items) : null
  return key === null ? [] : [key]
}

/** Files that are brought in together with a package: each still its person's, and read. @throws Refusal where one is not */
export async function besideUploads(
  db: Knex,
  personId: string | null,
  ids: readonly string[],
): Promise<Upload[]> {
  const uploads: Upload[] = []
  for (const id of ids) {
    const upload = await findUpload(db, id)
    if (!upload || upload.personId !== personId) throw notFound('One of the files')
    if (upload.outcome && !mayComeAgain(await contributionOf(db, upload))) throw refuse('file-brought-in')
    uploads.push(upload)
  }
  return uploads
}
/** A file that comes in beside another is held whole while it is read: a bundle of more is one of an institution. */
const besideAtMost = 64 * 1024 * 1024
/** The bytes of a file that comes in beside another. @throws Refusal where they are too many */
export async function uploadBytes(db: Knex, upload: Upload): Promise<Buffer> {
  if (upload.size > besideAtMost) throw refuse('file-too-large', { limit: besideAtMost })
  const parts: Buffer[] = []
  for await (const part of partsOf(db, upload.id)) parts.push(part)
  return Buffer.concat(parts)
}

export interface GatherInto extends Pick<CourseImport, 'term' | 'pairs' | 'choices' | 'otherOrder'> {
  /** First and last day of classes, of a course with a term of its own. */
  readonly span: Span
  readonly courseKey: string
  /** The registrar's class that the course is; null: none. */
  readonly classKey: string | null
  /** Records about students come in too, of whoever is on the roster: the academic office brings them. */
  readonly withStudents: boolean
  /** A course JSON for a package of which no file says more than single items. */
  readonly blank: CourseDocument
  /** What the package is called: by its name one chooses what it says itself. */
  readonly packageFile: string
  readonly limits: ReadLimits
}
/** What a package and the files beside it make of a course, and what stays out of it. */
export interface GatheredCourse {
  readonly document: CourseDocument
  /** One of the files is a course JSON: it says all that there is to say around the items. */
  readonly isWhole: boolean
  /** Which kind of file said what of each item, by its identifier. */
  readonly by: ReadonlyMap<string, SaidBy>
  readonly results: Results | null
  /** The students of the class, as a bundle names them. */
  readonly students: Roster['users']
  readonly findings: readonly Finding[]
  /** Files that are used up with it. */
  readonly used: readonly Upload[]
}
export async function gathered(
  db: Knex,
  content: CourseContent,
  uploads: readonly Upload[],
  {
    pairs,
    choices,
    otherOrder,
    courseKey,
    classKey,
    withStudents,
    blank,
    packageFile,
    limits,
    ...when
  }: GatherInto,
): Promise<GatheredCourse> {
  const { zone, taught } = await taughtWhen(db, when)
  const items = itemsOfPackage(content)
  const sayings: Saying[] = []
  const bundles: { upload: Upload; key: string }[] = []
  const used: Upload[] = []
  let whole: CourseDocument | null = null
  const second: Finding[] = []
  let wholeName = ''
  for (const upload of uploads) {
    const contribution = await contributionOf(db, upload)
    if (!contribution) continue
    const isOtherOrder = otherOrder.includes(upload.id)
    sayings.push(...sayingsOf(upload.name, contribution, { items, zone, classKey, isOtherOrder }))
    if (contribution.as === 'line-items') {
      const key = classOf(contribution.tables, items, classKey)
      if (key !== null) bundles.push({ upload, key })
    } else used.push(upload)
    if (contribution.as !== 'course-json') continue
    const said = readCourseDocument(upload.name, await uploadBytes(db, upload))
    // A second one has no place beside it.
    if (whole === null) [whole, wholeName] = [said, upload.name]
    else if (restSaid(said).length > 0)
      second.push(finding('second-course-json', upload.name, { first: wholeName }))
  }
  const near = withoutFar(sayings, taught)
  const all = gather(items, near.sayings, { pairs, choices, packageFile })
  const { document, students } = withStudents ? { document: whole, students: 0 } : withoutStudents(whole)
  const ofClass = []
  for (const { upload, key } of bundles)
    // Whom it names beside items of another course are no students of this one.
    if (all.met.some(({ saying }) => saying.file === upload.name))
      ofClass.push(await rowsOfClass(db, upload, key, { all, limits }))
  return {
    document: gatheredDocument(all, { classKey: courseKey, document: document ?? blank }),
    isWhole: whole !== null,
    by: saidBy(all),
    results: ofClass.at(-1)?.results ?? null,
    students: ofClass.at(-1)?.students ?? [],
    findings: [
      ...all.unmet.map(({ saying, why, alike }) =>
        finding('saying-unmet', `${saying.file}, ${saying.where}`, { title: saying.title, why, alike }),
      ),
      ...near.far.map(farFinding),
      ...daysOnly(all),
      ...ofClass.flatMap(({ findings }) => findings),
      ...second,
      ...(students > 0 ? [finding('students-stay-out', 'course JSON', { records: students })] : []),
    ],
    used,
  }
}
function daysOnly({ items }: Gathered): Finding[] {
  const { length } = items.filter(({ fields }) => dateFields.some(field => isDay(fields[field]?.value ?? '')))
  const { opens, due } = usualTimes
  return length > 0 ? [finding('days-only', 'dates', { items: length, opens, due })] : []
}
/** Of a bundle the students of one class, and what they got for line items that met something. */
async function rowsOfClass(
  db: Knex,
  upload: Upload,
  key: string,
  { all, limits }: { all: Gathered; limits: ReadLimits },
): Promise<{ results: Results; students: Roster['users']; findings: Finding[] }> {
  const archive = await openZip(upload.name, bufferSource(await uploadBytes(db, upload)), limits)
  const { roster } = await readOneRoster(archive, limits)
  const itemOf = new Map(
    all.met.flatMap(({ saying, item }) =>
      saying.file === upload.name ? [[saying.where, item.identifier] as const] : [],
    ),
  )
  const enrolled = roster.enrollments.filter(row => row.classSourcedId === key && row.role === 'student')
  const named = new Set(enrolled.map(row => row.userSourcedId))
  const own = new Set(roster.lineItems.flatMap(row => (row.classSourcedId === key ? [row.sourcedId] : [])))
  const rows = roster.results.filter(row => own.has(row.lineItemSourcedId))
  const met = rows.filter(row => itemOf.has(row.lineItemSourcedId))
  const unmet = rows.length - met.length
  return {
    results: { rows: met, itemOf },
    students: roster.users.filter(row => named.has(row.sourcedId)),
    findings: unmet > 0 ? [finding('results-unmet', upload.name, { results: unmet, why: 'line-items' })] : [],
  }
}
