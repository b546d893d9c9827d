import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import { counted } from '../../core/dates/words'
import { finding, type Finding } from '../../core/formats/findings'
import { readCourseDocument } from '../../core/formats/json/documents'
import { readOneRoster, type Roster } from '../../core/formats/oneroster/read'
import { sayingsOf } from '../../core/gather/contribution'
import { restSaid } from '../../core/gather/document'
import { withoutFar } from '../../core/gather/far'
import { lineItemSayings } from '../../core/gather/from-files'
import type { Saying } from '../../core/gather/saying'
import type { SaidImport } from '../../shared/api/gathering'
import { accessToCourses } from '../courses/access'
import { holdsContent } from '../courses/content.queries'
import { findCourseBySource, loadFacts, lockCourse } from '../courses/courses.queries'
import { contentOf } from '../courses/sections.queries'
import { refuse } from '../errors/refusal'
import { findPerson, isOffice, type Person } from '../people/people.queries'
import { openZip } from './files/zip'
import { besideUploads, uploadBytes, contributionOf, farFinding, taughtWhen } from './gathering'
import type { Importing } from './importing'
import type { Outcome } from './outcome'
import { itemsOfCourse, writeResults, writeSaid } from './said'
import { targetOf } from './target'
import { settleUpload } from './uploads.queries'

/** Whoever asked for an import, asked again now that it is done. */
export async function importerOf({ trx, job }: Importing): Promise<Person> {
  const person = job.personId === null ? null : await findPerson(trx, job.personId)
  if (!person) throw refuse('no-department')
  return person
}
/** What files say of the items of one course that is there, without a package: dates, points, categories, grading periods. */
export async function bringSaid(importing: Importing, request: SaidImport): Promise<Outcome> {
  const { trx, upload } = importing
  const person = await importerOf(importing)
  const { id, name, term, courseKey, isClass, isFilled } = await targetOf(trx, person, request.into)
  if (!isFilled) throw refuse('course-empty', { name })
  const { zone, taught } = await taughtWhen(trx, { term })
  const items = await itemsOfCourse(trx, id, false)
  const beside = await besideUploads(trx, person.id, request.beside)
  const classKey = isClass ? courseKey : null
  const sayings: Saying[] = []
  const rest: Finding[] = []
  for (const file of [upload, ...beside]) {
    const contribution = await contributionOf(trx, file)
    if (!contribution) continue
    if (contribution.as === 'course-json') {
      const parts = restSaid(readCourseDocument(file.name, await uploadBytes(trx, file)))
      if (parts.length > 0) rest.push(finding('rest-stays-out', file.name, { parts }))
    }
    const isOtherOrder = request.otherOrder.includes(file.id)
    sayings.push(...sayingsOf(file.name, contribution, { items, zone, classKey, isOtherOrder }))
  }
  const from = [upload, ...beside].map(file => file.name).join(', ')
  const { pairs, choices } = request
  const near = withoutFar(sayings, taught)
  const said = await writeSaid(trx, person, id, {
    sayings: near.sayings,
    from,
    unknownCounts: false,
    pairs,
    choices,
  })
  const outcome = {
    courseId: id,
    text: `${name} takes ${counted(said.fields, 'date or number', 'dates and numbers')} of ${counted(said.items, 'item')}`,
    findings: [
      ...said.all.unmet.map(({ saying, why, alike }) =>
        finding('saying-unmet', `${saying.file}, ${saying.where}`, { title: saying.title, why, alike }),
      ),
      ...near.far.map(farFinding),
      ...said.findings,
      ...rest,
    ],
  }
  for (const file of beside) await settleUpload(trx, file.id, { ...outcome, findings: [] })
  return outcome
}

/** A bundle's line items and results, to the courses that the person may write; its terms, people and enrolments stay out. */
export async function bringLineItems(importing: Importing): Promise<Outcome> {
  const { upload, source, limits, progress } = importing
  const person = await importerOf(importing)
  const { roster } = await readOneRoster(await openZip(upload.name, source, limits), limits, progress)
  const { text, findings } = await spreadLineItems(importing, person, roster)
  const { users, enrollments } = roster
  const out =
    users.length + enrollments.length > 0 && !isOffice(person)
      ? [finding('roster-stays-out', upload.name, { people: users.length, enrolments: enrollments.length })]
      : []
  return { text, findings: [...findings, ...out] }
}
/** Why line items of a class reach no course. */
type OutWhy = 'none' | 'empty' | 'joined' | 'not-yours'
/** Line items, grade categories, grading periods and results of a bundle to their courses, where those hold something. */
export async function spreadLineItems(
  { trx, upload }: Pick<Importing, 'trx' | 'upload'>,
  person: Person,
  roster: Roster,
): Promise<Pick<Outcome, 'text' | 'findings'>> {
  const findings: Finding[] = []
  const out = new Map<OutWhy, { classes: number; lineItems: number }>()
  const totals = { courses: 0, fields: 0, items: 0, results: 0 }
  for (const key of new Set(roster.lineItems.map(row => row.classSourcedId))) {
    const own = roster.lineItems.filter(row => row.classSourcedId === key)
    const course = await courseToWrite(trx, person, key)
    if (typeof course === 'string') {
      const before = out.get(course) ?? { classes: 0, lineItems: 0 }
      out.set(course, { classes: before.classes + 1, lineItems: before.lineItems + own.length })
      continue
    }
    const { zone, taught } = await taughtWhen(trx, { term: course.term })
    const { sayings, far } = withoutFar(lineItemSayings(upload.name, roster, key, zone), taught)
    const said = await writeSaid(trx, person, course.id, { sayings, from: upload.name, unknownCounts: true })
    const itemOf = new Map(said.all.met.map(({ saying, item }) => [saying.where, item.identifier]))
    const named = new Set(own.map(row => row.sourcedId))
    const rows = roster.results.filter(row => named.has(row.lineItemSourcedId))
    const met = rows.filter(row => itemOf.has(row.lineItemSourcedId))
    const { written, unlisted } = await writeResults(trx, course.id, { rows: met, itemOf })
    totals.courses++
    totals.fields += said.fields
    totals.items += said.items
    totals.results += written
    const at = (each: Finding): Finding => ({ ...each, where: `${course.name}, ${each.where}` })
    findings.push(
      ...said.all.unmet.map(({ saying, why, alike }) =>
        at(finding('saying-unmet', saying.where, { title: saying.title, why, alike })),
      ),
      ...far.map(farFinding).map(at),
      ...said.findings.map(at),
      ...resultsOut(course.name, rows.length - met.length, 'line-items'),
      ...resultsOut(course.name, unlisted, 'students'),
    )
  }
  for (const [why, of] of out) findings.push(finding('line-items-stay-out', upload.name, { why, ...of }))
  const { courses, fields, items, results } = totals
  return {
    text:
      courses === 0
        ? 'None of its line items reaches a course'
        : `${counted(courses, 'course')} got ${counted(fields, 'date or number', 'dates and numbers')} of ${counted(items, 'item')}, and ${counted(results, 'result')}`,
    findings,
  }
}
const resultsOut = (where: string, results: number, why: 'line-items' | 'students'): Finding[] =>
  results > 0 ? [finding('results-unmet', where, { results, why })] : []
/** The course of a class, taken for this transaction; or why nothing is written there. */
async function courseToWrite(
  trx: Knex,
  person: Person,
  classKey: string,
): Promise<{ id: string; name: string; term: string } | OutWhy> {
  const course = await findCourseBySource(trx, classKey)
  if (!course) return 'none'
  const access = (await accessToCourses(trx, person, [course.id])).get(course.id)
  if (!access?.run) return 'not-yours'
  await lockCourse(trx, course.id)
  if ((await contentOf(trx, course.id)) !== course.id) return 'joined'
  if (!(await holdsContent(trx, course.id))) return 'empty'
  const facts = await loadFacts(trx, course.id)
  return { id: course.id, term: facts.term.code, name: codeText(facts) }
}
