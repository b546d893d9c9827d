import type { Knex } from 'knex'
import type { CourseContent } from '../../core/course/model'
import { finding, type Finding } from '../../core/formats/findings'
import { readCourseDocument, type CourseDocument } from '../../core/formats/json/documents'
import { sayingsOf } from '../../core/gather/contribution'
import { gatheredDocument, withoutStudents } from '../../core/gather/document'
import { itemsOfPackage } from '../../core/gather/from-files'
import { gather } from '../../core/gather/gather'
import { validYears } from '../../core/calendar/zone'
import type { CourseImport, GatherReply } from '../../shared/api/gathering'
import { loadTermCalendar } from '../calendars/terms.queries'
import { zoneRules } from '../calendars/zones'
import { notFound, refuse } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { findUpload, loadReport, partsOf, uploadsOf, type Upload } from './uploads.queries'

/** A file that has been read, with what it has to say of a course; null where it says nothing. */
async function contributionOf(db: Knex, upload: Upload) {
  const report = upload.found === 'read' ? await loadReport(db, upload.id) : null
  return report?.detail.contribution ?? null
}
/**
 * What a package's items are, and what the person's other files say of them. Which of it counts is worked out where it is shown, and again
 * where it is brought in, by the same call (`core/gather`).
 * @throws Refusal where the file is no package that has been read
 */
export async function readGathering(
  db: Knex,
  person: Person,
  id: string,
  termCode: string,
): Promise<GatherReply> {
  const upload = await findUpload(db, id)
  const own = upload && (await contributionOf(db, upload))
  if (own?.as !== 'package') throw notFound('This package')
  const zone = zoneRules((await loadTermCalendar(db, termCode)).timeZone, validYears)
  const open = (await uploadsOf(db, person.id)).filter(other => other.id !== id && !other.outcome)
  // Of files of one name the one that was sent last counts: it stands in for those before.
  const others = open.filter(({ name }, at) => open.findIndex(each => each.name === name) === at)
  const files: GatherReply['files'] = []
  for (const other of others) {
    const contribution = await contributionOf(db, other)
    if (!contribution || contribution.as === 'package') continue
    const sayings = sayingsOf(other.name, contribution, { items: own.items, zone })
    files.push({
      id: other.id,
      name: other.name,
      as: contribution.as,
      sayings: [...sayings],
      unread: contribution.as === 'sheet' ? [...contribution.unread] : [],
    })
  }
  return { items: [...own.items], files }
}

/** The course JSON among some files; a second one has no place beside it. */
async function documentAmong(db: Knex, uploads: readonly Upload[]): Promise<CourseDocument | null> {
  for (const upload of uploads) {
    if ((await contributionOf(db, upload))?.as !== 'course-json') continue
    const parts: Buffer[] = []
    for await (const part of partsOf(db, upload.id)) parts.push(part)
    return readCourseDocument(upload.name, Buffer.concat(parts))
  }
  return null
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
    if (upload.outcome) throw refuse('file-brought-in')
    uploads.push(upload)
  }
  return uploads
}
/** What a package and the files beside it make of a course, and what stays out of it. */
export async function gathered(
  db: Knex,
  content: CourseContent,
  uploads: readonly Upload[],
  { term, pairs, choices, classKey }: Pick<CourseImport, 'term' | 'pairs' | 'choices'> & { classKey: string },
): Promise<{ document: CourseDocument; findings: Finding[] }> {
  const zone = zoneRules((await loadTermCalendar(db, term)).timeZone, validYears)
  const items = itemsOfPackage(content)
  const sayings = []
  for (const upload of uploads) {
    const contribution = await contributionOf(db, upload)
    if (contribution) sayings.push(...sayingsOf(upload.name, contribution, { items, zone }))
  }
  const all = gather(items, sayings, { pairs, choices })
  const { document, students } = withoutStudents(await documentAmong(db, uploads))
  return {
    document: gatheredDocument(all, { classKey, document }),
    findings: [
      ...all.unmet.map(({ saying, why, alike }) =>
        finding('saying-unmet', `${saying.file}, ${saying.where}`, { title: saying.title, why, alike }),
      ),
      ...(students > 0 ? [finding('students-stay-out', 'course JSON', { records: students })] : []),
    ],
  }
}
