import type { Knex } from 'knex'
import { checkCalendar } from '../../core/calendar/check'
import type { TermCalendar } from '../../core/calendar/schema'
import { courseText } from '../../core/course/code-text'
import type { Body, CourseContent, CourseNode } from '../../core/course/model'
import { spanText } from '../../core/dates/words'
import { readCartridge } from '../../core/formats/cartridge/read'
import { readTermCalendar } from '../../core/formats/json/documents'
import { finding, type Finding } from '../../core/formats/findings'
import { blankDocument } from '../../core/gather/document'
import { present } from '../../core/present'
import type { CourseImport } from '../../shared/api/gathering'
import { findTerm, insertOwnTerm, latestZone } from '../calendars/terms.queries'
import { isTimeZone } from '../calendars/zones'
import { keepAsCame } from '../courses/carried.queries'
import { copyAround } from '../courses/content.queries'
import { insertCourse, loadCourseKeys, loadFacts, lockCourse } from '../courses/courses.queries'
import { addRosterLines, enrolmentIds } from '../courses/staff.queries'
import { refuse } from '../errors/refusal'
import { homeOrg } from '../people/orgs.queries'
import { isOffice, type Person } from '../people/people.queries'
import { startPlan } from '../plans/start'
import { personRow } from '../registrar/person-row'
import { importerOf } from './bring-said'
import { openZip } from './files/zip'
import { besideUploads, uploadBytes, gathered, type GatheredCourse, type GatherInto } from './gathering'
import { fillCourse } from './import-course'
import type { Importing, Progress } from './importing'
import { categoriesThere, withWhatStands } from './later-file'
import type { Outcome } from './outcome'
import { targetOf, type Target } from './target'
import { keepPackage, settleUpload } from './uploads.queries'

/** The term of a new course; one of its own, where none here is the one it was taught in. */
async function termOf(
  trx: Knex,
  { term: code, span }: CourseImport,
  calendar: TermCalendar | null,
): Promise<{ id: string; name: string }> {
  const own = calendar ?? (span && checkedSpan(span, (await latestZone(trx)) ?? 'UTC'))
  const term = await findTerm(trx, own ? await insertOwnTerm(trx, own) : code)
  if (!term) throw refuse('unknown-term', { term: code })
  return term
}
/** First and last day, and the days without classes between, as a term's calendar. @throws Refusal where they do not fit each other */
function checkedSpan(
  { from, to, closures }: NonNullable<CourseImport['span']>,
  timeZone: string,
): TermCalendar {
  const said = { id: 'own', name: spanText(from, to), timeZone, classes: { from, to }, closures }
  const { calendar, faults } = checkCalendar(said, isTimeZone)
  if (calendar) return calendar
  const errors = faults.map(({ path, message }) => ({ field: ['span', ...path].join('.'), message }))
  throw refuse('days-do-not-fit', { errors })
}
/** The calendar that came as a file beside the package. @throws Refusal where it is none of the person's */
async function calendarOf(trx: Knex, personId: string, id: string | null): Promise<TermCalendar | null> {
  if (id === null) return null
  for (const upload of await besideUploads(trx, personId, [id]))
    return readTermCalendar(upload.name, await uploadBytes(trx, upload), isTimeZone)
  return null
}

/** A package as a course: a new one; into a class that holds nothing yet; or compared with a course that is there. */
export async function bringCourse(importing: Importing, request: CourseImport): Promise<Outcome> {
  const { trx, upload, source, limits, progress } = importing
  const person = await importerOf(importing)
  const target = request.into === null ? null : await targetOf(trx, person, request.into)
  const courseKey = target?.courseKey ?? `upload:${upload.id}`
  const ownTerm = target ? null : await calendarOf(trx, person.id, request.calendar)
  const { content } = await readCartridge(await openZip(upload.name, source, limits), {
    courseKey,
    limits,
    progress: (done, total) => progress(done, total * 2),
  })
  const beside = await besideUploads(trx, person.id, request.beside)
  const into: GatherInto = {
    ...request,
    span: ownTerm?.classes ?? request.span,
    term: target?.term ?? request.term,
    courseKey,
    classKey: target?.isClass ? courseKey : null,
    // A file that is compared has nobody on its roster.
    withStudents: target !== null && !target.isFilled && isOffice(person),
    blank: blankDocument(courseKey, target ? await categoriesThere(trx, target) : []),
    packageFile: upload.name,
    limits,
  }
  const came = await gathered(trx, content, beside, into)
  const bringing: Bringing = { importing, person, content, came, courseKey, ownTerm }
  const outcome = await broughtIn(bringing, target, request)
  const used = came.used.map(({ id }) => id)
  if (ownTerm && request.calendar) used.push(request.calendar)
  for (const id of used) await settleUpload(trx, id, { ...outcome, findings: [] })
  return { ...outcome, findings: [...came.findings, ...outcome.findings] }
}
function broughtIn(bringing: Bringing, target: Target | null, request: CourseImport): Promise<Outcome> {
  if (!target) return makeCourse(bringing, request)
  return target.isFilled ? compareWith(bringing, target) : fill(bringing, target)
}
interface Bringing {
  readonly importing: Importing
  readonly person: Person
  readonly content: CourseContent
  readonly came: GatheredCourse
  readonly courseKey: string
  /** The calendar of the term that the course was taught in, where a file brings it. */
  readonly ownTerm: TermCalendar | null
}
const filesOf = (
  { courseKey, content, came: { document, results }, importing: { progress } }: Bringing,
  nodes = content.nodes,
) => ({
  courseKey,
  content: { ...content, nodes: counting(nodes, progress) },
  document,
  results,
})

async function makeCourse(bringing: Bringing, request: CourseImport): Promise<Outcome> {
  const { importing, person, content, came, courseKey, ownTerm } = bringing
  const { trx, upload } = importing
  const term = await termOf(trx, request, ownTerm)
  const orgId = await homeOrg(trx, person.id)
  if (!orgId) throw refuse('no-department')
  const { code, section, title } = request
  const courseId = await insertCourse(trx, {
    sourceId: courseKey,
    termId: term.id,
    orgId,
    code,
    section,
    title,
    language: content.language?.slice(0, 40) ?? null,
    personId: person.id,
  })
  await lockCourse(trx, courseId)
  await addRosterLines(trx, courseId, came.students.map(personRow))
  const findings = await fillCourse(trx, courseId, filesOf(bringing))
  await keepAsCame(trx, courseId, 'file', came.by)
  await keepPackage(trx, upload, courseId)
  return { courseId, text: `Kept as ${courseText({ code, section, title })}, ${term.name}`, findings }
}

/** A class that holds nothing yet gets the package; of its students it gets what they got, where they are on its roster. */
async function fill(bringing: Bringing, { id, name }: Target): Promise<Outcome> {
  const { importing, came } = bringing
  const { trx, upload } = importing
  const listed = await enrolmentIds(trx, id)
  const rows = came.results?.rows ?? []
  const known = rows.filter(row => listed.has(row.studentSourcedId))
  const files = filesOf(bringing)
  const results = files.results && { ...files.results, rows: known }
  const found = await fillCourse(trx, id, { ...files, results })
  if (came.document.madeBy === 'template') await keepAsCame(trx, id, 'template')
  await keepAsCame(trx, id, 'file', came.by)
  await keepPackage(trx, upload, id)
  const unlisted = rows.length - known.length
  const out: Finding[] =
    unlisted > 0 ? [finding('results-unmet', name, { results: unlisted, why: 'students' })] : []
  return { courseId: id, text: `Brought into ${name}`, findings: [...found, ...out] }
}

/**
 * A later file of a course that is there stands as a course of its own, and a plan compares the two: what changed in the file is proposed, what
 * was changed in the course stays, and nothing is written until the plan is run.
 */
async function compareWith(bringing: Bringing, target: Target): Promise<Outcome> {
  const { importing, person, content, came } = bringing
  const { trx, upload } = importing
  const { termId, orgId } = present(await loadCourseKeys(trx, target.id))
  const { code, section } = await loadFacts(trx, target.id)
  const courseId = await insertCourse(trx, {
    sourceId: `file:${upload.id}`,
    termId,
    orgId,
    code,
    section,
    title: upload.name,
    language: null,
    personId: person.id,
    origin: 'file',
  })
  await lockCourse(trx, courseId)
  const files = filesOf(bringing, await withWhatStands(trx, target.id, content.nodes))
  const findings = await fillCourse(trx, courseId, { ...files, results: null })
  if (!came.isWhole) await copyAround(trx, target.id, courseId)
  const planId = await startPlan(trx, person, {
    sources: [courseId],
    target: target.id,
    decisions: 'as-the-file',
  })
  return {
    courseId: target.id,
    planId,
    text: `${upload.name} was compared with ${target.name}; nothing has changed there yet`,
    findings,
  }
}

/** The same nodes, which tell how many of their bodies have been written: the second half of the work. */
function counting(nodes: readonly CourseNode[], progress: Progress): CourseNode[] {
  let total = 0
  let done = 0
  const counted = (body: Body): Body => {
    total++
    return {
      ...body,
      async *chunks() {
        yield* body.chunks()
        progress(total + ++done, total * 2)
      },
    }
  }
  const walk = <T extends CourseNode>(node: T): T => ({
    ...node,
    ...('body' in node && node.body && { body: counted(node.body) }),
    children: node.children.map(walk),
  })
  return nodes.map(walk)
}
